@use ('App\View\Icon')
<button
    class="icon-button"
    data-command="desk-undo"
    @disabled ($deskUndoable === null)
    title="{{ $deskUndoable === null ? 'Nothing on the desk to take back' : 'Take back on the desk: '.$deskUndoable->name }} (Z)"
    aria-label="{{ $deskUndoable === null ? 'Nothing on the desk to take back' : 'Take back on the desk: '.$deskUndoable->name }}"
>
    {!! Icon::svg('rotate-ccw') !!}
</button>
<button
    class="icon-button"
    data-command="desk-redo"
    @disabled ($deskRedoable === null)
    title="{{ $deskRedoable === null ? 'Nothing on the desk to do again' : 'Again on the desk: '.$deskRedoable->name }} (Shift+Z)"
    aria-label="{{ $deskRedoable === null ? 'Nothing on the desk to do again' : 'Again on the desk: '.$deskRedoable->name }}"
>
    {!! Icon::svg('rotate-cw') !!}
</button>
