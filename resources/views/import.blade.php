<x-page title="Taking in {{ $import->file_name }}" class="plain">
    <header class="top">
        <a class="brand" href="{{ route('projects') }}"><x-logo /> <span>Vine Shelf</span></a>
        <span class="gap"></span>
        <x-person-menu />
    </header>
    <main class="column">
        <h1>Taking in</h1>
        <p>You can leave this page; the work goes on and shows under <a href="{{ route('projects') }}">Projects</a>.</p>
        @include ('partials.import')
    </main>
</x-page>
