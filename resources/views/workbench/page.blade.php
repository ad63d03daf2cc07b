@use('App\View\Icon')
<x-page title="{{ $project->name }}" class="bench">
    <header class="top">
        <a class="brand" href="{{ route('projects') }}" title="All projects" aria-label="Vine Shelf: all projects"><x-logo /></a>
        <h1 class="project-title" title="{{ $project->name }}">{{ $project->name }}</h1>
        <span class="crumb">@foreach ($sources->take(1) as $source)<a href="{{ route('projects.report', [$project, $source]) }}">{{ $sources->count() === 1 ? 'one source' : $sources->count().' sources' }}</a>@endforeach</span>
        <span class="gap"></span>
        <div id="meter">@include('workbench.meter')</div>
        <div id="history" class="history">@include('workbench.history')</div>
        <button class="icon-button" data-command="keys" title="Keys (?)" aria-label="Keys">{!! Icon::svg('help-circle') !!}</button>
        <x-person-menu />
    </header>
    <main class="work" id="work"
        data-base="{{ route('workbench', $project) }}" data-budget="{{ config('shelf.budget') }}">
        <section class="ledger" aria-label="Ledger">
            <div class="lenses"><span role="tablist" aria-label="Lens">
                @foreach (App\Ledger\Ledger::LENSES as $lens => $label)
                    <button role="tab" id="lens-{{ $lens }}" data-lens="{{ $lens }}" aria-controls="ledger-grid" aria-selected="{{ $ledger->name === $lens ? 'true' : 'false' }}" tabindex="{{ $ledger->name === $lens ? 0 : -1 }}">{{ $label }}</button>
                @endforeach
                </span><span class="gap"></span>
                <button class="icon-button" data-command="unfold-all" title="Unfold all" aria-label="Unfold all">{!! Icon::svg('chevron-down') !!}</button>
                <button class="icon-button" data-command="fold-all" title="Fold all" aria-label="Fold all">{!! Icon::svg('chevron-right') !!}</button>
            </div>
            <div class="find">
                {!! Icon::svg('search') !!}
                <input id="words" type="search" placeholder="Part of a name" aria-label="Find by name" autocomplete="off" spellcheck="false" maxlength="200">
                <span id="hits" role="status"></span>
                <button class="button small" id="pick-found" hidden>Pick them</button>
            </div>
            <div class="grid" role="treegrid" id="ledger-grid" aria-label="Layers and objects" aria-multiselectable="true" aria-rowcount="{{ $ledger->lens()->total() + 1 }}">
                <div class="row head" role="row" aria-rowindex="1">
                    <span role="columnheader" class="name">Name</span><span role="columnheader" class="count">Objects</span><span role="columnheader" class="weigh">Weight</span><span role="columnheader" class="desk">Desk</span><span role="columnheader" class="lock">Lock</span><span role="columnheader" class="more"><span class="unseen">More</span></span>
                </div>
                <div class="scroll" id="scroll" role="presentation"><div class="spacer" id="spacer" role="presentation"><div class="rows" id="rows" role="rowgroup">@include('workbench.rows')</div></div></div>
            </div>
            <footer class="foot" id="foot">@include('workbench.foot')</footer>
        </section>
        <div class="divider" role="separator" tabindex="0" aria-orientation="vertical" aria-label="Width of the ledger" aria-valuemin="360" aria-valuemax="900" aria-valuenow="496"></div>
        <section class="canvas" id="canvas" aria-label="Canvas">
            <canvas tabindex="0" role="img" aria-label="The model. Left button picks, right button orbits, middle button pans, the wheel zooms."></canvas>
            <div class="tools" role="toolbar" aria-label="Canvas" aria-orientation="vertical">
                <button class="icon-button" data-command="fit-all" title="Fit all (A)" aria-label="Fit all">{!! Icon::svg('maximize') !!}</button>
                <button class="icon-button" data-command="fit-pick" title="Fit the pick (F)" aria-label="Fit the pick">{!! Icon::svg('focus') !!}</button>
                <span id="desk-steps">@include('workbench.desk-steps')</span>
            </div>
            <div class="hover-name" id="hover-name" aria-live="off" hidden></div>
            <div id="card">@include('workbench.card')</div>
            <p class="on-its-way" id="on-its-way" role="status"></p>
        </section>
        <section class="shelf" id="shelf" aria-label="Shelf of views">@include('workbench.shelf')</section>
        <div class="menu" id="row-menu" popover role="menu" aria-label="Row"></div>
    </main>
    <div id="message" class="message" role="status" aria-live="polite"></div>
    <div id="canvas-state" hidden>@include('workbench.state', ['more' => []])</div>
    <dialog id="dialog" aria-labelledby="dialog-title"></dialog>
    <script type="application/json" id="materials">@json($materials)</script>
    <template id="keys-sheet">@include('workbench.keys')</template>
</x-page>
