@use ('App\View\Icon')
@use ('App\View\Marks')
@use ('VineShelf\Rungs\Rung')
<b></b> <span class="of"></span>
<span class="rungs">
    @foreach (array_reverse(Rung::cases()) as $rung)
        <button
            class="icon-button"
            data-grid-rung="{{ $rung->value }}"
            title="{{ $rung->label() }} ({{ $rung->value }})"
            aria-label="Set {{ $rung->label() }}"
        >
            {!! Marks::rung($rung, $rung) !!}
        </button>
    @endforeach
</span>
<button class="button small" data-grid-rung="none" title="Nothing set (Delete)">Clear</button>
<button class="button small" data-grid="from" aria-haspopup="menu">Copy from…</button>
<button class="button small" data-grid="copy" title="Copy the cells (Ctrl+C)">Copy</button>
<button class="button small" data-grid="paste" title="Paste (Ctrl+V)">Paste</button>
<button class="button small" data-grid="down" title="The first row into all of them (Ctrl+D)">Fill down</button>
<button class="button small" data-grid="aside" title="The first column into all of them">Fill across</button>
<button class="button small" data-grid="where" aria-haspopup="menu">Rows that say…</button>
<button class="icon-button" data-grid="end" title="Let go (Esc)" aria-label="Let go">{!! Icon::svg('x') !!}</button>
