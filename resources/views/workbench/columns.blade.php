@use ('App\View\Icon')
<form method="dialog" class="columns-dialog" data-columns>
    <h2 id="dialog-title">Columns of the ledger</h2>
    <input type="search" data-narrow-columns placeholder="Part of a column's name" aria-label="Find a column" />
    <p class="choices-head" aria-hidden="true"><span>Column</span><span>What it shows</span><span>Width, px</span><span>Order</span></p>
    <ol class="choices" aria-label="Columns, in their order">
        @foreach ([...$chosen, ...$others] as $place => $column)
            <li data-column="{{ $column->id }}" data-text="{{ mb_strtolower($column->label) }}">
                <label class="tick" title="{{ $column->meaning }}"
                    ><input type="checkbox" @checked ($place < count($chosen)) /> <span class="label">{{ $column->label }}</span></label
                >
                <small>{{ str_starts_with($column->id, 'p:') ? 'property of the file' : $column->meaning }}</small>
                <input
                    type="number"
                    min="{{ App\Bench\Column::NARROWEST }}"
                    max="{{ App\Bench\Column::WIDEST }}"
                    value="{{ $column->width }}"
                    aria-label="Width of {{ $column->label }} in pixels"
                />
                <button type="button" class="icon-button" data-move="-1" aria-label="Move {{ $column->label }} to the left">
                    {!! Icon::svg('arrow-up') !!}
                </button>
                <button type="button" class="icon-button" data-move="1" aria-label="Move {{ $column->label }} to the right">
                    {!! Icon::svg('arrow-down') !!}
                </button>
            </li>
        @endforeach
    </ol>
    <p class="acts">
        <button type="button" class="button primary" data-keep-columns>Show these</button>
        <button type="button" class="button" data-close>Leave it</button>
    </p>
</form>
