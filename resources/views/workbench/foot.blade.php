<span>{{ number_format($bench->layers()->count()) }} {{ $bench->layers()->count() === 1 ? 'layer' : 'layers' }}</span>
<span>{{ number_format($bench->scene()->count()) }} objects</span>
@if ($hidden > 0)
    <span>{{ number_format($hidden) }} hidden</span>
@endif
<span class="gap"></span>
<button class="button small" data-command="new-layer" title="New layer, inside the selected one (N)">
    {!! App\View\Icon::svg('plus') !!} Layer
</button>
