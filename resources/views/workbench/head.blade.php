@use ('App\View\Icon')
@php ($arrangement = $bench->arrangement())
<span
    role="columnheader"
    class="name"
    aria-sort="{{ $arrangement->sortBy === 'name' ? ($arrangement->down ? 'descending' : 'ascending') : 'none' }}"
    ><button class="sort" data-sort="name" title="Sort by name">
        Name
        @if ($arrangement->sortBy === 'name') {!! Icon::svg($arrangement->down ? 'arrow-down' : 'arrow-up') !!}@endif</button
></span>
@foreach ($arrangement->columns as $column)
    <span
        role="columnheader"
        @class (['col', 'number' => $column->isNumber, 'is-'.($column->isDefault() ? $column->id : 'more')])
        data-column="{{ $column->id }}"
        data-width="{{ $column->width }}"
        aria-sort="{{ $arrangement->sortBy === $column->id ? ($arrangement->down ? 'descending' : 'ascending') : 'none' }}"
        ><button class="sort" data-sort="{{ $column->id }}" title="{{ $column->label }}: {{ $column->meaning }}. Click to sort">
            {{ $column->label }}
            @if ($arrangement->sortBy === $column->id) {!! Icon::svg($arrangement->down ? 'arrow-down' : 'arrow-up') !!}@endif</button
        ><i class="grip" data-grip="{{ $column->id }}" title="Drag to size"></i
    ></span>
@endforeach
@foreach ((new App\Ledger\Memberships($bench))->columns() as [$key, $name, $colour, $isDecided])
    <span role="columnheader" class="member-head" data-member="{{ $key }}" data-decided="{{ $isDecided ? 1 : 0 }}" title="{{ $name }}"
        >@if ($colour !== '')<i class="swatch kind-tag" style="--swatch: {{ $colour }}"></i>@endif<b>{{ $name }}</b></span
    >
@endforeach
@if ($ledger->columns->isOn()) @include ('workbench.view-heads') @endif
<span role="columnheader" class="more"
    ><button class="sort" data-command="columns" title="Choose columns" aria-label="Choose columns">{!! Icon::svg('plus') !!}</button></span
>
