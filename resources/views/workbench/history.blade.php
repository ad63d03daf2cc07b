@use ('App\View\Icon')
@php
    $undo = $undoable === null ? 'Nothing to undo' : 'Undo: ' . $undoable->name;
    $redo = $redoable === null ? 'Nothing to redo' : 'Redo: ' . $redoable->name;
@endphp
<button
    class="icon-button"
    data-command="undo"
    data-change="{{ $undoable?->no }}"
    @disabled ($undoable === null)
    title="{{ $undo }} (Ctrl+Z)"
    aria-label="{{ $undo }}"
>
    {!! Icon::svg('undo-2') !!}
</button>
<button
    class="icon-button"
    data-command="redo"
    data-change="{{ $redoable?->no }}"
    @disabled ($redoable === null)
    title="{{ $redo }} (Ctrl+Y)"
    aria-label="{{ $redo }}"
>
    {!! Icon::svg('redo-2') !!}
</button>
