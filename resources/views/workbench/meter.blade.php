@php
    $most = ['triangles' => (int) config('shelf.budget'), 'calls' => (int) config('shelf.calls'), 'megabytes' => (int) config('shelf.megabytes')];
    $share = static fn (int $triangles): float => round(min(100, 100 * $triangles / max(1, $most['triangles'])), 1);
    $title = 'What the canvas draws, of at most '.number_format($most['triangles']).' triangles, '.number_format($most['calls'])
        .' calls and '.number_format($most['megabytes']).' MB. At the rungs in effect the model has '
        .number_format($weight['drawn']).' triangles, at Full '.number_format($weight['triangles']).'.';
@endphp
<div
    class="meter"
    title="{{ $title }}"
>
    @foreach ($most as $what => $budget)
        <span class="gauge" data-gauge="{{ $what }}" data-most="{{ $budget }}">
            <span class="meter-words"
                ><span>{{ $what === 'megabytes' ? 'MB' : $what }}</span
                ><b>{{ $what === 'triangles' ? App\View\Marks::short($weight['drawn']) : '' }}</b></span
            >
            <span class="meter-bar"
                ><i></i>@if ($what === 'triangles')<u style="width: {{ $share($weight['drawn']) }}%"></u>@endif</span
            >
        </span>
    @endforeach
</div>
