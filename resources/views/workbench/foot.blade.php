@use ('App\View\Icon')
@php
    $layers = $bench->layers()->count();
    $tags = count($bench->tags()->tree->members);
    $sets = count($bench->sets()->tree->members);
    $landing = App\Bench\Landing::of($bench);
    $warns = $landing->asWhat !== '' && $bench->mayChange();
    $counted = fn (int $count, string $word) => number_format($count) . ' ' . $word . ($count === 1 ? '' : 's');
@endphp
@if ($warns)
    <span class="warn label" title="New objects will land {{ $landing->asWhat }} in {{ $landing->layer->name }}"
        >New objects will land {{ $landing->asWhat }} in {{ $landing->layer->name }}</span
    >
    <button class="link" data-command="landing">Elsewhere…</button>
@else
    <span>{{ ['tags' => $counted($tags, 'tag'), 'sets' => $counted($sets, 'set')][$ledger->name] ?? $counted($layers, 'layer') }}</span>
    <span>{{ number_format($bench->scene()->count()) }} objects</span>
    @if ($hidden > 0)
        <span>{{ number_format($hidden) }} hidden</span>
    @endif
@endif
<span class="gap"></span>
@if ($bench->mayChange())
    @if (! $warns && ! in_array($ledger->name, ['tags', 'sets'], true))
        <button class="link landing-place" data-command="landing" title="New objects land in {{ $landing->layer->name }}">
            {!! Icon::svg('leaf') !!} <span class="label">{{ $landing->layer->name }}</span>
        </button>
    @endif
    @if ($ledger->name === 'tags' || $ledger->name === 'sets')
        <button
            class="button small"
            data-command="new-folder"
            title="New folder, inside the selected one or around the selected rows (Shift+F)"
        >
            {!! Icon::svg('folder-plus') !!} Folder
        </button>
    @endif
    @if ($ledger->name === 'tags')
        <button class="button small" data-command="new-here" title="New tag, inside the selected folder (N)">
            {!! Icon::svg('plus') !!} Tag
        </button>
    @elseif ($ledger->name === 'sets')
        <button class="button small" data-command="keep-set" title="Keep what is picked, or the rule in the line, as a set (S)">
            {!! Icon::svg('plus') !!} Set
        </button>
    @else
        <button class="button small" data-command="new-here" title="New layer, inside the selected one (N)">
            {!! Icon::svg('plus') !!} Layer
        </button>
    @endif
@endif
