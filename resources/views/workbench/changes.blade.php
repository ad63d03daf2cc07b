@use ('App\Changes\Log')
@use ('App\View\Icon')
@use ('App\View\Marks')
@php
    [$all, $bytes, $thinned] = $cost;
    $mayChange = $bench->mayChange();
    $pages = (int) ceil($count / Log::PAGE);
@endphp
<div class="weight-head">
    <h2>History</h2>
    <select data-go="by" aria-label="Whose changes">
        <option value="0">Everybody’s</option>
        @foreach ($people as $person)
            <option value="{{ $person->id }}" @selected ($by === $person->id)>
                {{ $person->id === $bench->person->id ? 'Your own' : $person->name.'’s' }}
            </option>
        @endforeach
    </select>
    <input
        type="search"
        data-go="words"
        value="{{ $words }}"
        placeholder="Part of a name"
        aria-label="Part of a change’s name"
        maxlength="200"
    />
    <span class="gap"></span>
    <span class="weight-sum" title="What it takes to take changes back">{{ Marks::bytes($bytes) }}</span>
    @if ($isOwner)
        <select
            data-act="POST /changes/keep"
            data-value="kept"
            aria-label="How many changes can be taken back"
            title="How many changes can be taken back"
        >
            @foreach (Log::KEPT as $many)
                <option value="{{ $many }}" @selected ($bench->project->history_kept === $many)>
                    {{ $many === 0 ? 'Keep all' : 'Keep the last '.number_format($many) }}
                </option>
            @endforeach
        </select>
    @endif
    <button class="icon-button" data-panel="close" title="Close (Esc)" aria-label="Close">{!! Icon::svg('x') !!}</button>
</div>
@if ($changes === [])
    <p class="weight-none">{{ $all === 0 ? 'Nothing has been changed yet.' : 'No change is called that.' }}</p>
@else
    <div class="weight-list screen-list" tabindex="0" role="group" aria-label="Changes, the last first">
        <table>
            <thead>
                <tr>
                    <th scope="col">When</th>
                    <th scope="col">Who</th>
                    <th scope="col">What</th>
                    <th scope="col" class="number">Objects</th>
                    <th scope="col" class="number" title="What it takes to take it back">Size</th>
                    <th scope="col"><span class="unseen">What is done</span></th>
                </tr>
            </thead>
            <tbody>
                @foreach ($changes as $change)
                    @php
                        $isOwn = $change->user_id === $bench->person->id;
                        $why = match (true) {
                            $change->thinned => 'too old to be taken back',
                            $change->undone && $change->undone_by === $change->user_id => 'taken back',
                            $change->undone => 'taken back by '.($change->undoneBy->name ?? 'somebody who has left'),
                            $change->barred !== '' => $change->barred,
                            default => '',
                        };
                    @endphp
                    <tr data-line="{{ $change->no }}" @class (['is-off' => $change->undone || $change->thinned])>
                        <td title="{{ $change->made_at->format('j F Y H:i:s') }}">
                            {{ $change->made_at->isToday() ? $change->made_at->format('H:i') : $change->made_at->format('j M H:i') }}
                        </td>
                        <td>{{ $isOwn ? 'You' : ($change->user->name ?? 'Somebody who has left') }}</td>
                        <td class="history-what" title="{{ $change->name }}{{ $why === '' ? '' : " ($why)" }}">
                            {{ $change->name }} @if ($why !== '') <span class="aside">{{ $why }}</span> @endif
                        </td>
                        <td class="number">
                            @if ($change->objects !== null && $change->objects > 0 && !$change->thinned)
                                <button class="link" data-pick="change={{ $change->no }}" title="Pick them"
                                    >{{ number_format($change->objects) }}</button
                                >
                            @else
                                {{ $change->objects === null || $change->objects === 0 ? '' : number_format($change->objects) }}
                            @endif
                        </td>
                        <td class="number">{{ $change->thinned ? '' : Marks::bytes((int) $change->getAttribute('size')) }}</td>
                        <td class="sorting-acts">
                            @if ($mayChange && !$change->thinned)
                                @if ($change->undone && $change->let_go)
                                @elseif ($change->undone)
                                    @if ($isOwn || $change->undone_by === $bench->person->id || $isOwner)
                                        <button class="link" data-act="POST /redo" data-values="change={{ $change->no }}">
                                            Do it again
                                        </button>
                                    @endif
                                @elseif ($isOwn || $isOwner || $change->user_id === null)
                                    <button class="link" data-act="POST /undo" data-values="change={{ $change->no }}">Take it back</button>
                                    @if ($isOwn)
                                        <button
                                            class="icon-button"
                                            data-act="POST /changes/back"
                                            data-values="change={{ $change->no }}"
                                            title="Take this back, and all that you did after it"
                                            aria-label="Back to before {{ $change->name }}"
                                        >{!! Icon::svg('rotate-ccw') !!}</button>
                                    @endif
                                @endif
                            @endif
                        </td>
                    </tr>
                @endforeach
            </tbody>
        </table>
        @if ($pages > 1)
            <p class="screen-pages">
                <button class="link" data-go="page={{ max(0, $page - 1) }}" @disabled ($page === 0)>Later ones</button>
                <span>
                    {{ number_format($page * Log::PAGE + 1) }} to {{ number_format(min($count, ($page + 1) * Log::PAGE)) }} of
                    {{ number_format($count) }}
                </span>
                <button class="link" data-go="page={{ $page + 1 }}" @disabled ($page + 1 >= $pages)>Earlier ones</button>
            </p>
        @endif
    </div>
@endif
