@use ('App\View\Icon')
@php ($arrangement = $bench->arrangement())
@if (in_array($ledger->name, ['layers', 'tags', 'sets'], true))
    <x-tool command="narrow-rows" icon="text-search" title="Find rows by their own names (;)" label="Find rows by their own names" />
@endif
<x-tool command="fold-menu" icon="unfold-vertical" title="How far rows are open" aria-haspopup="menu" />
<button
    class="icon-button"
    data-command="follow"
    aria-pressed="{{ $arrangement->follows ? 'true' : 'false' }}"
    title="{{ $arrangement->follows ? 'The ledger scrolls to what you pick' : 'The ledger stays where it is when you pick' }}"
    aria-label="Follow the pick"
>
    {!! Icon::svg($arrangement->follows ? 'locate' : 'locate-off') !!}
</button>
<x-tool command="layouts" icon="columns-3" title="Columns and layouts" aria-haspopup="menu" />
