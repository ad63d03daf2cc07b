@use ('App\View\Marks')
@use ('App\Workbench\Budget')
@php
    $most = Budget::most();
    $share = round(min(100, 100 * $weight['drawn'] / max(1, $most['triangles'])), 1);
@endphp
<button
    class="meter"
    data-command="weight"
    title="{{ Budget::words($weight) }} Click: what weighs what (Shift+H)"
>
    @foreach ($most as $what => $budget)
        <span class="gauge" data-gauge="{{ $what }}" data-most="{{ $budget }}">
            <span class="meter-words"
                ><span>{{ $what === 'megabytes' ? 'MB' : $what }}</span
                ><b>{{ $what === 'triangles' ? Marks::short($weight['drawn']) : '' }}</b></span
            >
            <span class="meter-bar"
                ><i></i>@if ($what === 'triangles')<u style="width: {{ $share }}%"></u>@endif</span
            >
        </span>
    @endforeach
</button>
