@use ('App\View\Marks')
@php
    $more = static fn (?int $since): string => match (true) {
        $since === null => '',
        $since > 0 => '+'.number_format($since),
        $since < 0 => '−'.number_format(-$since),
        default => '=',
    };
@endphp
<x-page title="Sorting of {{ $project->name }}" class="summary">
    <header class="top">
        <a class="brand" href="{{ route('projects') }}" title="All projects" aria-label="Vine Shelf: all projects"><x-logo /></a>
        <a class="project-title" href="{{ route('workbench', $project) }}" title="Back to the workbench">{{ $project->name }}</a>
        <span class="gap"></span>
        <x-person-menu />
    </header>
    <main class="summary-page" tabindex="0" aria-label="How it is sorted">
        <h1>How {{ $project->name }} is sorted</h1>
        <p>
            {{ now()->format('j F Y') }}. {{ number_format($summary->objects) }} {{ $summary->objects === 1 ? 'object' : 'objects' }},
            {{ number_format($summary->triangles) }} triangles.
        </p>
        <form class="summary-ask" method="get" action="{{ route('summary', $project) }}">
            <label for="since">What has changed since the end of</label>
            <input
                id="since"
                type="date"
                name="since"
                value="{{ $since?->format('Y-m-d') }}"
                min="{{ $first->format('Y-m-d') }}"
                max="{{ now()->format('Y-m-d') }}"
            />
            <button class="button">Compare</button>
            @if ($since !== null) <a href="{{ route('summary', $project) }}">Not any more</a> @endif
            <span class="gap"></span>
            <a class="button" href="{{ route('summary.file', [$project, 'since' => $since?->format('Y-m-d')]) }}" download>Save as CSV</a>
        </form>
        @foreach (['Layer' => 'Layers', 'Tag' => 'Tags', 'Set' => 'Selection sets'] as $kind => $title)
            @php
                $lines = array_filter($summary->lines, static fn (array $line): bool => $line['kind'] === $kind);
            @endphp
            @continue ($lines === [])
            <h2>{{ $title }}</h2>
            <table>
                <thead>
                    <tr>
                        <th scope="col">Name</th>
                        <th scope="col" class="number">Objects</th>
                        @if ($since !== null) <th scope="col" class="number">Since {{ $since->format('j M') }}</th> @endif
                        <th scope="col" class="number">Triangles</th>
                        <th scope="col" class="number">Bytes</th>
                        <th scope="col">{{ $kind === 'Set' ? 'Rule' : 'Lock' }}</th>
                        <th scope="col">Note</th>
                    </tr>
                </thead>
                <tbody>
                    @foreach ($lines as $line)
                        <tr>
                            <td style="--level: {{ $line['depth'] }}" class="summary-name">
                                @if ($line['colour'] !== '') <span class="swatch" style="--swatch: {{ $line['colour'] }}"></span> @endif
                                {{ $line['name'] }}
                            </td>
                            <td class="number">{{ number_format($line['objects']) }}</td>
                            @if ($since !== null)
                                <td class="number">
                                    {{ $more($line['since']) }}
                                </td>
                            @endif
                            <td class="number">{{ number_format($line['triangles']) }}</td>
                            <td class="number">{{ Marks::bytes($line['bytes']) }}</td>
                            <td>
                                @if ($line['rule'] !== '')
                                    <code>{{ $line['rule'] }}</code>
                                @elseif ($line['lock'] !== 'Open')
                                    {{ $line['lock'] }}
                                @endif
                            </td>
                            <td>{{ $line['note'] }}</td>
                        </tr>
                    @endforeach
                </tbody>
            </table>
        @endforeach
    </main>
</x-page>
