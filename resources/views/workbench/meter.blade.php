@php
    $budget = (int) config('shelf.budget');
    $drawn = $weight['drawn'];
    $share = round(min(100, 100 * $drawn / max(1, $budget)), 1);
    $rest = round(max(0, 100 - 100 * $weight['triangles'] / max(1, $budget)), 1);
    $title = number_format($drawn).' triangles at the rungs in effect, '.number_format($weight['triangles']).' at Full, budget '
        .number_format($budget);
@endphp
<div
    class="meter"
    title="{{ $title }}"
>
    <span class="meter-words"
        ><span>{{ App\View\Marks::short($drawn) }} to draw</span><span>budget {{ App\View\Marks::short($budget) }}</span></span
    >
    <span class="meter-bar @if ($drawn > $budget) over @endif"
        ><i style="width: {{ $share }}%"></i><u style="left: {{ $share }}%; right: {{ $rest }}%"></u
    ></span>
</div>
