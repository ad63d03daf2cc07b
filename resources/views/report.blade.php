@use ('App\View\Marks')
@php
    // The database keeps the members of JSON in an order of its own.
    $kinds = array_filter(
        array_replace(array_fill_keys(array_map(fn($kind) => $kind->name, VineShelf\Scene\Kind::cases()), 0), $report['kinds']),
    );
    $span = $report['bounds'] ? array_map(fn($low, $high) => $high - $low, $report['bounds']['min'], $report['bounds']['max']) : null;
    $most = max(1, $report['unsorted'], ...array_map(fn($layer) => $layer['objects'], $report['layers'] ?: [['objects' => 1]]));
@endphp
<x-page title="What came in {{ $source->name }}" class="plain">
    <header class="top">
        <a class="brand" href="{{ route('projects') }}"><x-logo /> <span>Vine Shelf</span></a>
        <span class="crumb">{{ $project->name }}</span>
        <span class="gap"></span>
        <x-person-menu />
    </header>
    <main class="column report">
        <div class="report-head">
            <div>
                <h1>What came</h1>
                <p title="{{ $source->name }}">{{ $source->name }} · {{ $source->format }} · {{ Marks::bytes($source->bytes) }}</p>
            </div>
            <a class="button primary" href="{{ route('workbench', $project) }}">Open the workbench</a>
        </div>
        @if ($sources->count() > 1)
            <nav class="report-sources" aria-label="Sources">
                @foreach ($sources as $each)
                    <a
                        href="{{ route('projects.report', [$project, $each]) }}"
                        @if ($each->id === $source->id) aria-current="page" @endif
                        title="{{ $each->name }}"
                        >{{ $each->name }}</a
                    >
                @endforeach
            </nav>
        @endif
        <p class="original">
            @if ($source->original !== '')
                The file as it came is kept: {{ Marks::bytes($source->bytes) }} of what the project takes.
                @if ($mayChange)
                    <a href="{{ route('sources.original', [$project, $source]) }}">Download it</a>
                    <button type="button" class="link" popovertarget="original-remove">Remove it…</button>
                @endif
            @elseif ($source->original_removed_at !== null)
                The file as it came was removed on {{ $source->original_removed_at->format('j F Y') }}; what was taken in from it stays.
            @else
                The file as it came was not kept: it was taken in before files were.
            @endif
        </p>
        @if ($source->original !== '' && $mayChange)
            <form
                class="menu original-remove"
                id="original-remove"
                popover
                method="post"
                action="{{ route('sources.original.remove', [$project, $source]) }}"
            >
                @csrf
                @method ('delete')
                <p>What was taken in stays. The file itself cannot be brought back, only given again.</p>
                <button class="button danger">Remove the file</button>
            </form>
        @endif
        <div class="report-grid">
            <section aria-labelledby="what">
                <h2 id="what">{{ number_format($report['objects']) }} objects</h2>
                <table>
                    <tbody>
                        @foreach ($kinds as $kind => $count)
                            <tr>
                                <th scope="row">
                                    {{
                                        $kind === 'Points'
                                            ? 'Point sets'
                                            : ($kind === 'Camera'
                                                ? 'Cameras'
                                                : $kind . 's')
                                    }}
                                </th>
                                <td>{{ number_format($count) }}</td>
                            </tr>
                        @endforeach
                    </tbody>
                </table>
                <h2>How heavy</h2>
                <table>
                    <tbody>
                        <tr>
                            <th scope="row">Triangles drawn</th>
                            <td>{{ number_format($report['triangles']) }}</td>
                        </tr>
                        <tr>
                            <th scope="row">Meshes</th>
                            <td>{{ number_format($report['meshes']) }}</td>
                        </tr>
                        <tr>
                            <th scope="row">Geometry stored</th>
                            <td>{{ Marks::bytes($report['stored']) }}</td>
                        </tr>
                        <tr>
                            <th scope="row">Materials</th>
                            <td>{{ number_format($report['materials']) }}</td>
                        </tr>
                        <tr>
                            <th scope="row">Textures</th>
                            <td>{{ number_format($report['textures']) }}</td>
                        </tr>
                        @if ($span)
                            <tr>
                                <th scope="row">Width × depth × height</th>
                                <td>{{ implode(' × ', array_map(fn($metres) => number_format($metres, 2), $span)) }} m</td>
                            </tr>
                            <tr>
                                <th scope="row">From</th>
                                <td>
                                    {{
                                        implode(
                                            ', ',
                                            array_map(fn($metres) => number_format($metres, 2), $report['bounds']['min']),
                                        )
                                    }}
                                </td>
                            </tr>
                            <tr>
                                <th scope="row">To</th>
                                <td>
                                    {{
                                        implode(
                                            ', ',
                                            array_map(fn($metres) => number_format($metres, 2), $report['bounds']['max']),
                                        )
                                    }}
                                </td>
                            </tr>
                        @endif
                    </tbody>
                </table>
                @if ($newTo !== [])
                    <h2>New to {{ count($newTo) === 1 ? 'a view' : number_format(count($newTo)) . ' views' }}</h2>
                    <p>
                        {{ implode(', ', array_map(fn ($view) => "“{$view->name}”", array_slice($newTo, 0, 5))) }}
                        {{ count($newTo) > 5 ? 'and ' . number_format(count($newTo) - 5) . ' more' : '' }} were kept before some of the
                        objects came. <a href="{{ route('workbench', [$project, 'review' => 1]) }}">Review what each of them shows</a>
                    </p>
                @endif
                <h2>What stands out</h2>
                <ul class="notes">
                    @if ($unsure > 0)
                        <li>
                            {{ number_format($unsure) }} of its layers could be one of several that were here before.
                            <a href="{{ route('workbench', [$project, 'unsure' => $source->id]) }}">Say which are meant</a>
                        </li>
                    @endif
                    @if ($report['unnamed'] > 0)
                        <li>
                            {{ number_format($report['unnamed']) }} {{ $report['unnamed'] === 1 ? 'object has' : 'objects have' }} no name.
                        </li>
                    @endif
                    @if ($report['repeats'] > 0)
                        <li>
                            {{ number_format($report['repeats']) }} {{ $report['repeats'] === 1 ? 'mesh is' : 'meshes are' }} a repeat of
                            another one, stored again.
                        </li>
                    @endif
                    @foreach ($report['warnings'] as $warning)
                        <li>{{ $warning }}</li>
                    @endforeach
                    @if ($report['unnamed'] + $report['repeats'] + count($report['warnings']) + $unsure === 0)
                        <li>Everything was understood.</li>
                    @endif
                </ul>
            </section>
            <section aria-labelledby="where">
                <h2 id="where">Where it was filed</h2>
                <p>{{
                    $report['how'] === 'nothing'
                        ? 'Everything is in Unsorted, as you asked.'
                        : 'By ' .
                            $report['how'] .
                            ': ' .
                            number_format(count($report['layers'])) .
                            ' ' .
                            (count($report['layers']) === 1 ? 'layer' : 'layers') .
                            '.'
                }}</p>
                <div class="filed" tabindex="0" role="region" aria-label="Layers and their objects">
                    <table>
                        <tbody>
                            @foreach ([['name' => 'Unsorted', 'objects' => $report['unsorted']], ...$report['layers']] as $layer)
                                <tr>
                                    <th scope="row" title="{{ $layer['name'] }}">{{ $layer['name'] }}</th>
                                    <td class="meter-cell">
                                        <span class="weight"><i style="width: {{ round(100 * $layer['objects'] / $most, 1) }}%"></i></span>
                                    </td>
                                    <td>{{ number_format($layer['objects']) }}</td>
                                </tr>
                            @endforeach
                        </tbody>
                    </table>
                </div>
                @if (($report['tags'] ?? []) !== [])
                    <h2>What was tagged</h2>
                    <p>
                        @if ($report['tagsFrom'] === '')
                            As it was tagged when it was exported: {{ number_format(count($report['tags'])) }}
                            {{ count($report['tags']) === 1 ? 'tag' : 'tags' }}.
                        @else
                            By the property “{{ $report['tagsFrom'] }}”: {{ number_format(count($report['tags'])) }}
                            {{ count($report['tags']) === 1 ? 'tag' : 'tags' }} in a folder of that name.
                        @endif
                    </p>
                    <div class="filed" tabindex="0" role="region" aria-label="Tags and their objects">
                        <table>
                            <tbody>
                                @foreach ($report['tags'] as $tag)
                                    <tr>
                                        <th scope="row" title="{{ $tag['name'] }}">{{ $tag['name'] }}</th>
                                        <td>{{ number_format($tag['objects']) }}</td>
                                    </tr>
                                @endforeach
                            </tbody>
                        </table>
                    </div>
                @elseif (($report['tagsFrom'] ?? '') !== '')
                    <p>No object has a property “{{ $report['tagsFrom'] }}”, so no tags were made.</p>
                @endif
            </section>
        </div>
    </main>
</x-page>
