@use ('App\View\Icon')
@php ($arrangement = $bench->arrangement())
<button class="icon-button" data-command="fold-menu" title="Fold and unfold" aria-label="Fold and unfold" aria-haspopup="menu">
    {!! Icon::svg('unfold-vertical') !!}
</button>
<button
    class="icon-button"
    data-command="follow"
    aria-pressed="{{ $arrangement->follows ? 'true' : 'false' }}"
    title="{{ $arrangement->follows ? 'The ledger scrolls to what you pick' : 'The ledger stays where it is when you pick' }}"
    aria-label="Follow the pick"
>
    {!! Icon::svg($arrangement->follows ? 'locate' : 'locate-off') !!}
</button>
<button class="icon-button" data-command="layouts" title="Columns and layouts" aria-label="Columns and layouts" aria-haspopup="menu">
    {!! Icon::svg('columns-3') !!}
</button>
