@use ('App\View\Marks')
@use ('VineShelf\Rules\Printer')
@use ('VineShelf\Views\Applied')
@php
    $all = $newcomers->all()->count();
    $byLayer = $newcomers->byLayer();
    $those = array_filter($newcomers->views, fn ($view) => ! $newcomers->of($view)->isEmpty() || $newcomers->layersSince($view) !== []);
    $counted = fn (int $count) => number_format($count) . ' ' . ($count === 1 ? 'object' : 'objects');
    $gets = [Applied::HIDDEN => 'Hidden', Applied::FULL => 'Full', Applied::AS_ON_DESK => 'As the desk'];
    $what = count($those) === 1 ? reset($those)->name : count($those) . ' views';
@endphp
<form class="ask wide review" data-submit="post" data-address="{{ route('views.review', $bench->project) }}">
    <h2 id="dialog-title">
        {{ $those === [] ? 'Nothing is new to these views' : "What is new to $what" }}
    </h2>
    @if ($all > 0)
        <p>
            {{ $counted($all) }} came since:
            {{ implode(', ', array_map(fn ($layer) => number_format($layer[1]) . ' in ' . $layer[0], array_slice($byLayer, 0, 6))) }}{{
                count($byLayer) > 6 ? ', and more' : ''
            }}.
        </p>
    @endif
    <div class="scrolled">
        <table class="reviewed">
            @if ($those !== [])
                <thead>
                    <tr>
                        <th scope="col"><span class="unseen">Reviewed</span></th>
                        <th scope="col">View</th>
                        <th scope="col" class="number">Newcomers</th>
                        <th scope="col">
                            @if (count($those) > 1)
                                <select data-newcomers-of-all aria-label="What newcomers get in all that are ticked">
                                    <option value="">They get</option>
                                    @foreach ($gets as $value => $label)
                                        <option value="{{ $value }}">All: {{ $label }}</option>
                                    @endforeach
                                </select>
                            @else
                                They get
                            @endif
                        </th>
                        <th scope="col">Layers made since</th>
                    </tr>
                </thead>
            @endif
            <tbody>
                @foreach ($those as $view)
                    @php
                        $count = $newcomers->of($view)->count();
                        $layers = $newcomers->layersSince($view);
                    @endphp
                    <tr>
                        <td><input type="checkbox" data-key="V{{ $view->no }}" checked aria-label="{{ $view->name }}" /></td>
                        <th scope="row"><span class="label" title="{{ $view->name }}">{{ $view->name }}</span></th>
                        <td class="number">
                            @if ($count > 0)
                                <button type="button" class="link" data-pick-rule="is newer than {{ Printer::quoted($view->name) }}">
                                    {{ number_format($count) }}
                                </button>
                            @else
                                0
                            @endif
                        </td>
                        <td>
                            <select data-newcomers="V{{ $view->no }}" aria-label="What newcomers get in {{ $view->name }}">
                                @foreach ($gets as $value => $label)
                                    <option value="{{ $value }}" @selected ($view->newcomers === $value)>{{ $label }}</option>
                                @endforeach
                            </select>
                        </td>
                        <td>
                            @foreach (array_slice($layers, 0, 4) as [$layer, $rung, $lower])
                                <span class="held" title="{{ $layer->name }}: {{ $rung->label() }}">
                                    {!! Marks::rung($rung, $rung) !!} <span class="label">{{ $layer->name }}</span>
                                    @if ($lower > 0) <em>{{ number_format($lower) }} lower</em> @endif
                                </span>
                            @endforeach
                            @if (count($layers) > 4) <em>and {{ count($layers) - 4 }} more</em> @endif
                        </td>
                    </tr>
                @endforeach
            </tbody>
        </table>
    </div>
    @if ($those !== [])
        <p class="hint">
            Reviewed views know what is there now: newcomers stay at what they got, and what is filed under these layers follows what the
            view says of them.
        </p>
    @endif
    <p class="error" role="alert" hidden></p>
    <p class="acts">
        @if ($those !== []) <button class="button primary">They are reviewed</button> @endif
        <button type="button" class="button" data-close>Close</button>
    </p>
</form>
