@use ('App\SortingRules\Paths')
@use ('App\View\Icon')
@use ('VineShelf\Tidy\Checks')
@php
    $mayChange = $bench->mayChange();
    $checks = Checks::all();
    $isRunning = $tidying !== null && !$tidying->isOver();
    $isOld = $tidying !== null && !$isRunning && $tidying->revision !== $bench->project->revision;
    $entries = $report->entries ?? [];
    // Where what is found is looked after on another screen.
    $leads = ['unsorted' => ['sorting-rules', 'Sorting rules'], 'too-heavy' => ['weight', 'Weight']];
    $called = static fn (string $row): string => match ($row[0]) {
        'L' => Paths::layer($bench, (int) substr($row, 1)),
        'T' => Paths::tag($bench, (int) substr($row, 1)),
        default => $bench->sets()->has((int) substr($row, 1)) ? $bench->sets()->get((int) substr($row, 1))->name : null,
    } ?? 'what is gone';
@endphp
<div class="weight-head">
    <h2>Tidy</h2>
    @if ($isRunning)
        <span class="screen-busy" data-again="700" role="status">
            <progress max="100" value="{{ $tidying->percent }}" aria-label="Looking through the model"></progress>
            {{ $tidying->state === 'waiting' ? 'Waiting for a free worker' : $tidying->percent.'%' }}
        </span>
        <button class="button" data-act="POST /tidy/stop">Stop</button>
    @else
        <button class="button @if ($tidying === null || $isOld) primary @endif" data-act="POST /tidy/run">
            {{ $tidying === null ? 'Look through the model' : 'Look again' }}
        </button>
        @if ($tidying !== null && $tidying->says !== '')
            <span class="warns">{{ $tidying->says }}</span>
        @elseif ($tidying !== null)
            <span class="aside">{{ $isOld ? 'The model has changed since' : 'as of '.$tidying->updated_at->format('H:i') }}</span>
        @endif
    @endif
    <span class="gap"></span>
    <button class="icon-button" data-panel="close" title="Close (Esc)" aria-label="Close">{!! Icon::svg('x') !!}</button>
</div>
@if ($tidying === null)
    <div class="weight-none screen-empty">
        <p>Looks for what makes a model hard to work with: names that say nothing, parts in the wrong place, twins, things of no size.</p>
        <p>Each finding says why it matters. What is meant so can be waved through, and stays so.</p>
    </div>
@elseif ($entries === [] && !$isRunning)
    <p class="weight-none">Nothing was found. {{ $waived === [] ? '' : 'Some things were waved through.' }}</p>
@endif
<div class="weight-list screen-list tidy-list" tabindex="0" role="group" aria-label="What was found">
    @foreach ($entries as $entry)
        @php ($check = $checks[$entry['id']])
        @continue ($waivers->isHabit($entry['id']))
        <details class="tidy" data-line="{{ $entry['id'] }}" @if ($loop->first) open @endif>
            <summary>
                <b>{{ $check->title($entry['many']) }}</b>
                @if ($check->countsItems() && $entry['objects'] > 0)
                    <span class="aside">{{ number_format($entry['objects']) }} {{ $entry['objects'] === 1 ? 'object' : 'objects' }}</span>
                @endif
            </summary>
            <p class="tidy-why">{{ $check->why() }}</p>
            @if (($entry['names'] ?? []) !== [])
                <p class="tidy-names">
                    @foreach ($entry['names'] as [$old, $new])
                        <span>{{ $old === '' ? 'unnamed' : $old }} {!! Icon::svg('arrow-right') !!} <b>{{ $new }}</b></span>
                    @endforeach
                </p>
            @endif
            <p class="tidy-acts">
                @if ($entry['objects'] > 0)
                    <button class="button small" data-pick="check={{ $entry['id'] }}">Pick them</button>
                @endif
                @if (isset($leads[$entry['id']]))
                    <button class="button small" data-command="{{ $leads[$entry['id']][0] }}">{{ $leads[$entry['id']][1] }}</button>
                @endif
                @if ($mayChange)
                    @foreach ($check->mends() as $mend => $label)
                        <button
                            class="button small"
                            data-act="POST /tidy/mend"
                            data-values="check={{ $entry['id'] }}&mend={{ $mend }}"
                        >
                            {{ $label }}
                        </button>
                    @endforeach
                    <span class="gap"></span>
                    @if ($bench->pick()->count() > 0 && $entry['objects'] > 0)
                        <button
                            class="link"
                            data-act="POST /tidy/wave"
                            data-values="check={{ $entry['id'] }}&of=pick"
                            title="The picked objects are meant so"
                        >
                            Wave the pick through
                        </button>
                    @endif
                    <button
                        class="link"
                        data-act="POST /tidy/wave"
                        data-values="check={{ $entry['id'] }}&of=all"
                        title="That is how we do it: do not tell again"
                    >
                        It is our way
                    </button>
                @endif
            </p>
            @if (count($entry['items']) > 1 || $entry['items'][0][1] !== '')
                <ul class="tidy-items">
                    @foreach ($entry['items'] as [$key, $says, $objects, $of])
                        <li>
                            <span class="label" title="{{ $says }}">{{ $says }}</span>
                            @if ($objects > 0)
                                <button
                                    class="link"
                                    data-pick="check={{ $entry['id'] }}&item={{ rawurlencode($key) }}"
                                    title="Pick {{ $says }}"
                                    >{{ number_format($objects) }}</button
                                >
                            @endif
                            @foreach ($of as $row)
                                @if ($loop->index < 2)
                                    <button class="link" data-show-key="{{ $row }}" title="Show {{ $called($row) }} in the ledger">
                                        Show {{ count($of) > 1 ? $called($row) : (['L' => 'layer', 'E' => 'set'][$row[0]] ?? 'tag') }}
                                    </button>
                                @endif
                            @endforeach
                            @if ($mayChange)
                                @foreach (count($entry['items']) > 1 ? $check->mends() : [] as $mend => $label)
                                    <button
                                        class="link"
                                        data-act="POST /tidy/mend"
                                        data-values="check={{ $entry['id'] }}&mend={{ $mend }}&item={{ rawurlencode($key) }}"
                                        title="{{ $label }}"
                                        aria-label="{{ count($check->mends()) > 1 ? '' : 'Mend: ' }}{{ $label }}, {{ $says }}"
                                    >
                                        {{ count($check->mends()) > 1 ? Str::words($label, 2, '') : 'Mend' }}
                                    </button>
                                @endforeach
                                <button
                                    class="link"
                                    data-act="POST /tidy/wave"
                                    data-values="check={{ $entry['id'] }}&of=item&item={{ rawurlencode($key) }}"
                                    aria-label="Wave through: {{ $says }}"
                                >
                                    Wave through
                                </button>
                            @endif
                        </li>
                    @endforeach
                    @if ($check->countsItems() && $entry['many'] > count($entry['items']))
                        <li class="aside">and {{ number_format($entry['many'] - count($entry['items'])) }} more</li>
                    @endif
                </ul>
            @endif
        </details>
    @endforeach
    @if ($waived !== [])
        <p class="tidy-waived">
            Waved through:
            @foreach ($waived as $id => $numbers)
                @continue (!isset($checks[$id]))
                <span
                    >{{ lcfirst($checks[$id]->title(2) === '' ? $id : preg_replace('~^2 ~', '', $checks[$id]->title(2))) }}
                    @if ($mayChange)
                        <button
                            class="link"
                            data-act="POST /tidy/wave"
                            data-values="check={{ $id }}&of=again"
                            title="{{ $checks[$id]->title(2) }}"
                        >
                            look again
                        </button>
                    @endif</span
                >
            @endforeach
        </p>
    @endif
</div>
