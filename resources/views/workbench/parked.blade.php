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
