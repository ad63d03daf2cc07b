@use ('App\View\Marks')
@php
    $rungs = array_filter($holders, fn ($holder) => $holder->rung !== null);
    $locks = $side->isOutput ? [] : array_filter($holders, fn ($holder) => $holder->lock !== null);
    $counted = fn (int $count) => number_format($count) . ' of ' . number_format($objects);
@endphp
<form method="dialog" class="why" data-why="/why?{{ http_build_query(array_filter($asked)) }}" data-side="{{ $side->name() }}">
    <h2 id="dialog-title">
        @if ($lowered === 0)
            Everything of {{ $name }} is drawn in full{{ $side->isOutput ? ' in pictures' : '' }}
        @else
            {{ $counted($lowered) }} in {{ $name }} {{ $lowered === 1 ? 'is' : 'are' }} held below Full
            {{ $side->isOutput ? 'in pictures' : '' }}
        @endif
    </h2>
    <p>
        @if ($side->isOutput)
            Pictures {{ ($view = $bench->outputs()->view()) === null ? 'of no view.' : 'of view ' . $view->name . '.' }}
        @elseif ($protected === 0)
            All of it is open: it can be picked and changed.
        @else
            {{ $counted($protected) }} {{ $protected === 1 ? 'is' : 'are' }} guarded or locked.
        @endif
    </p>
    @if ($holders !== [])
        <ul>
            @foreach ([...$rungs, ...$locks] as $at => $holder)
                @php ($isRung = $at < count($rungs))
                <li>
                    @if ($isRung) {!! Marks::rung($holder->rung, $holder->rung) !!} @else {!! Marks::lock($holder->lock) !!} @endif
                    <span>{{ $text->holder($holder) }}</span> <em>{{ number_format($holder->rows->count()) }}</em>
                    <em>{{ $isRung ? $holder->rung->label() : $holder->lock->label() }}</em>
                    @if (in_array($holder->what, ['layer', 'tag', 'folder'], true))
                        <button
                            type="button"
                            class="link"
                            data-show-row="{{ ['layer' => 'L', 'tag' => 'T', 'folder' => 'F'][$holder->what] . $holder->number }}"
                        >
                            Show it
                        </button>
                    @endif
                    @if ($side->isOutput)
                        @include ('workbench.mend-pictures')
                    @elseif ($isRung || $bench->mayChange())
                        <button
                            type="button"
                            class="link"
                            data-mend
                            data-what="{{ $holder->what }}"
                            data-number="{{ $holder->number }}"
                            data-part="{{ $isRung ? 'rung' : 'lock' }}"
                        >
                            {{ $isRung ? $text->mend($holder) : 'Open it' }}
                        </button>
                    @endif
                </li>
            @endforeach
        </ul>
    @endif
    <p class="acts">
        @if (count($rungs) > 1 && (! $side->isOutput || $bench->mayChange()))
            <button type="button" class="button primary" data-mend data-what="all" data-part="rung">Raise all</button>
        @endif
        @if (count($locks) > 1 && $bench->mayChange())
            <button type="button" class="button" data-mend data-what="all" data-part="lock">Open all</button>
        @endif
        <button class="button" value="close">Close</button> @include ('workbench.why-sides')
    </p>
</form>
