@use ('App\View\Marks')
@use ('VineShelf\Rungs\Rung')
@php
    $report = $lightening->report;
    $alternatives = ['before' => 'Now', 'after' => 'Lightened', 'lost' => 'Lightened, what is lost marked'];
    $isDone = $lightening->state === 'done';
    $percent = static fn (float $part): string => $part > 0 && $part < 0.0005 ? '<0.1 %' : number_format(100 * $part, 1).' %';
    $pictured = $asked->views[$report['pictured'] ?? -1] ?? null;
    $of = array_values(array_filter($bench->shelf()->members, static fn ($view) => $view->no === $pictured))[0] ?? null;
    $whole = $asked->cameras === [] ? 'of all there is to see' : (count($asked->cameras) === 1 ? 'of the picture' : 'of the pictures');
@endphp
<div
    class="lightening"
    data-lightening="{{ $lightening->key }}"
    data-over="{{ $lightening->isOver() ? 1 : 0 }}"
>
    @if (in_array($lightening->state, ['failed', 'stopped'], true))
        <p class="error" role="alert">{{ $lightening->says }}</p>
    @elseif ($report !== null)
        <div class="lighten-top">
            <p class="lighten-says" role="status">
                @if ($report['lowered'] === [])
                    It fits as it is: <b>{{ number_format($report['before']['triangles']) }}</b> triangles.
                @else
                    <b>{{ number_format($report['before']['triangles']) }}</b> triangles become
                    <b>{{ number_format($report['after']['triangles']) }}</b>{{ $isDone ? ',' : '.' }}
                    @if ($isDone)
                        {{ Marks::bytes($report['before']['bytes']) }} become {{ Marks::bytes($report['after']['bytes']) }}. Loses
                        <b
                            @if ($report['bound'] > 0)
                                title="No choice of rungs loses less than {{ number_format(100 * $report['bound'], 3) }} %"
                            @endif
                            >{{ $percent($report['loss']) }}</b
                        >
                        {{ $whole }}{{ $report['differs'] === null ? '.' : '; '.$percent($report['differs']).' of the pixels differ.' }}
                        @if ($report['unseen'] > 0)
                            {{ number_format($report['unseen']) }} of the {{ number_format(array_sum($report['lowered'])) }} objects are not
                            seen at all.
                        @endif
                    @endif
                @endif
                @if ($isDone)
                    <span class="hint">
                        @if ($report['locked'] > 0) {{ number_format($report['locked']) }} locked objects stay as they are. @endif
                        @if ($report['kept'] > 0) {{ number_format($report['kept']) }} are kept. @endif
                        @if ($report['unready'] > 0)
                            {{ number_format($report['unready']) }} meshes have no coarser version yet; ask again in a while to lose less.
                        @endif
                    </span>
                @endif
            </p>
            <p class="acts">
                @if ($isDone && $report['lowered'] !== [])
                    @if ($lightening->isApplied())
                        <button type="button" class="button" data-lighten-do="back" title="What was set otherwise since then stays">
                            Give back
                        </button>
                    @else
                        <button type="button" class="button primary" data-lighten-do="apply">Lighten</button>
                    @endif
                    <button type="button" class="button" data-lighten-do="pick" data-layer="0" title="Pick what is lowered">
                        Pick them
                    </button>
                @elseif (! $isDone)
                    <button type="button" class="button" data-lighten-do="stop" @disabled ($lightening->stop)>
                        {{ $lightening->stop ? 'Stopping' : 'Stop' }}
                    </button>
                @endif
            </p>
        </div>
        @unless ($isDone)
            <div
                class="bar"
                role="progressbar"
                aria-label="Looking at what is seen"
                aria-valuemin="0"
                aria-valuemax="100"
                aria-valuenow="{{ $lightening->percent }}"
                ><i style="width: {{ $lightening->percent }}%"></i></div
            >
            <p class="hint">
                A first guess, from sizes alone.
                {{ $lightening->state === 'waiting' ? 'Waiting for a free worker.' : 'Looking at what is seen.' }}
            </p>
        @endunless
        @if ($isDone && $report['layers'] !== [])
            <div class="lighten-both">
                @if ($report['pictures'] ?? false)
                    <figure class="lighten-pictures">
                        <span class="lighten-stack">
                            @foreach (['before', 'after', 'lost'] as $picture)
                                <img
                                    src="{{ route('lighten.picture', [$bench->project, $lightening->key, $picture]) }}"
                                    alt="{{ $alternatives[$picture] }}"
                                    data-picture="{{ $picture }}"
                                    @if ($picture === 'lost') hidden @endif
                                />
                            @endforeach
                            <i aria-hidden="true"></i>
                            <b>now</b>
                            <b>lightened</b>
                        </span>
                        <figcaption>
                            <input
                                type="range"
                                data-lighten-cut
                                min="0"
                                max="100"
                                value="50"
                                aria-label="Where now ends and lightened begins"
                            />
                            <span class="lighten-line">
                                <label class="tick"
                                    ><input type="checkbox" data-lighten-lost /> <span>mark what is lost</span></label
                                >
                                @if ($of !== null)
                                    <span class="hint" title="The view that loses most: {{ $of->name }}">{{ $of->name }}</span>
                                @endif
                            </span>
                        </figcaption>
                    </figure>
                @endif
                <div class="weight-list" tabindex="0" role="group" aria-label="What is lowered, by layer">
                    <table>
                        <thead>
                            <tr>
                                <th scope="col">Layer</th>
                                <th scope="col">To</th>
                                <th scope="col" class="number">Saves</th>
                                <th scope="col" class="number">Loses</th>
                            </tr>
                        </thead>
                        <tbody>
                            @foreach ($report['layers'] as $layer)
                                <tr>
                                    <td class="text">
                                        <button
                                            type="button"
                                            class="link"
                                            data-lighten-do="pick"
                                            data-layer="{{ $layer['layer'] }}"
                                            title="Pick what is lowered in {{ $layer['name'] }}"
                                            >{{ $layer['name'] }}</button
                                        >
                                    </td>
                                    <td class="lighten-rungs">
                                        @foreach ($layer['rungs'] as $rung => $count)
                                            <span title="{{ number_format($count) }} to {{ Rung::from((int) $rung)->label() }}"
                                                >{!! Marks::rung(Rung::from((int) $rung), Rung::from((int) $rung)) !!}
                                                {{ number_format($count) }}</span
                                            >
                                        @endforeach
                                    </td>
                                    <td class="number">{{ number_format($layer['saves']) }}</td>
                                    <td class="number">{{ $percent($layer['loss']) }}</td>
                                </tr>
                            @endforeach
                        </tbody>
                    </table>
                </div>
            </div>
        @endif
    @endif
</div>
