@use ('App\View\Icon')
@use ('App\View\Marks')
@use ('VineShelf\Rungs\Rung')
@php
    [$first, $second] = [$compared->first, $compared->second];
    $rows = $compared->organizers();
    $labels = $compared->labels();
    $kinds = array_combine(array_keys($compared->rows()), array_slice($labels, 0, 3));
@endphp
<form method="dialog" class="ask compare" data-compare data-first="{{ $first->key }}" data-second="{{ $second->key }}">
    <h2 id="dialog-title">Compare</h2>
    <div class="compared">
        @foreach (['first' => $first, 'second' => $second] as $which => $state)
            <label class="unseen" for="compare-{{ $which }}">{{ $which === 'first' ? 'First' : 'Second' }}</label>
            <select id="compare-{{ $which }}" name="{{ $which }}" data-compare-choose @if ($loop->first) autofocus @endif>
                @foreach ($views as $view)
                    <option value="V{{ $view->no }}" @selected ($state->key === "V$view->no")>{{ $view->name }}</option>
                @endforeach
                <option value="D" @selected ($state->key === 'D')>The desk</option>
                <option value="O" @selected ($state->key === 'O')>Pictures</option>
            </select>
            @if ($loop->first) <span aria-hidden="true">{!! Icon::svg('arrow-right') !!}</span> @endif
        @endforeach
    </div>
    <div class="compare-parts">
        <div>
            <div class="lighten-stack compare-stack">
                @foreach ([$first, $second] as $state)
                    @if ($state->key === 'D')
                        <img data-canvas-picture alt="" />
                    @elseif ($state->view !== null && $state->view->picture !== '')
                        <img src="{{ route('views.picture', [$bench->project, $state->view->no]) }}" alt="" />
                    @else
                        <img src="data:image/gif;base64,R0lGODlhAQABAAAAACH5BAEKAAEALAAAAAABAAEAAAICTAEAOw==" alt="" />
                    @endif
                @endforeach
                <i></i> <b>{{ $first->name }}</b> <b>{{ $second->name }}</b>
            </div>
            <input type="range" min="0" max="100" value="50" data-compare-cut aria-label="How much of each picture is seen" />
        </div>
        <table class="reviewed">
            <thead>
                <tr>
                    <th scope="col">Objects</th>
                    <th scope="col" class="number">How many</th>
                    <th scope="col" class="number" title="Triangles that they draw in {{ $first->name }}">Triangles, first</th>
                    <th scope="col" class="number" title="Triangles that they draw in {{ $second->name }}">Triangles, second</th>
                </tr>
            </thead>
            <tbody>
                @foreach ($compared->rows() as $which => $those)
                    @php
                        $count = $those->count();
                        [$here, $there] = $compared->weights($those);
                    @endphp
                    <tr>
                        <th scope="row"><span class="label" title="{{ $kinds[$which] }}">{{ $kinds[$which] }}</span></th>
                        <td class="number">
                            @if ($count > 0)
                                <button type="button" class="link" data-compare-pick="{{ $which }}">{{ number_format($count) }}</button>
                            @else
                                0
                            @endif
                        </td>
                        <td class="number">{{ Marks::short($here) }}</td>
                        <td class="number">{{ Marks::short($there) }}</td>
                    </tr>
                @endforeach
            </tbody>
        </table>
    </div>
    @if ($rows === [])
        <p>No layer, folder or tag is set otherwise.</p>
    @else
        <ul class="differences scrolled">
            @foreach (array_slice($rows, 0, 200) as [$key, $name, $here, $there])
                <li>
                    <button type="button" class="link label" data-show-row="{{ $key }}" title="{{ $name }}">{{ $name }}</button>
                    {!! Marks::rung($here ?? Rung::Full, $here ?? Rung::Full) !!} {!! Icon::svg('arrow-right') !!}
                    {!! Marks::rung($there ?? Rung::Full, $there ?? Rung::Full) !!}
                    <em>{{ $here?->label() ?? 'Nothing set' }} to {{ lcfirst($there?->label() ?? 'nothing set') }}</em>
                </li>
            @endforeach
            @if (count($rows) > 200) <li>and {{ number_format(count($rows) - 200) }} more rows</li> @endif
        </ul>
    @endif
    <p class="acts">
        <button type="button" class="button primary" data-compare-tint>Tint the canvas</button>
        <button class="button" value="close">Close</button>
    </p>
</form>
