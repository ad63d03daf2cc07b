@php
    $pins = App\Bench\Pins::of($bench);
@endphp
@if ($pins !== [])
    <div class="pins" role="group" aria-label="Pinned">
        @foreach ($pins as $pin)
            <button
                class="pin"
                data-command="pin"
                data-pin="{{ $pin['what'] }}"
                data-rule="{{ $pin['rule'] }}"
                title="{{ $pin['title'] }}. Click picks its objects, right click for more"
            >
                @if ($pin['colour'] !== '')
                    <span class="swatch kind-tag" style="--swatch: {{ $pin['colour'] }}"></span>
                @else
                    {!! App\View\Icon::svg($pin['icon']) !!}
                @endif
                <span class="label">{{ $pin['name'] }}</span>
            </button>
        @endforeach
    </div>
@endif
@php
    $isEmpty = array_sum(array_map(fn ($slot) => $bench->parked()->pick($slot)->count(), range(1, VineShelf\Scene\Parked::SLOTS))) === 0;
@endphp
@if ($isEmpty)
    <p class="slots-say">Nine places to park a pick</p>
@endif
<div class="slots" role="group" aria-label="Slots">
    <x-tool command="pick-before" icon="chevron-left" title="The pick before: ( " label="The pick before" />
    <x-tool command="pick-after" icon="chevron-right" title="The pick after: )" label="The pick after" />
    @foreach (range(1, VineShelf\Scene\Parked::SLOTS) as $slot)
        @php
            $count = $bench->parked()->pick($slot)->count();
            $title = $count > 0
                ? "Slot $slot: ".number_format($count)." parked. Click picks them (Alt+$slot), Shift adds, right click for more"
                : "Slot $slot is empty. Click parks the pick (Alt+Shift+$slot)";
        @endphp
        <button
            class="slot @if ($count > 0) full @endif"
            data-command="slot"
            data-slot="{{ $slot }}"
            data-count="{{ $count }}"
            title="{{ $title }}"
            aria-label="Slot {{ $slot }}, {{ $count > 0 ? number_format($count).' parked' : 'empty' }}"
        >
            <b>{{ $slot }}</b>
            @if ($count > 0)
                <small>{{ App\View\Marks::short($count) }}</small>
            @endif
        </button>
    @endforeach
</div>
