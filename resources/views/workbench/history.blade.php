@use('App\View\Icon')
<button class="icon-button" data-command="undo" @disabled($undoable === null) title="{{ $undoable === null ? 'Nothing to undo' : 'Undo: '.$undoable->name }} (Ctrl+Z)" aria-label="{{ $undoable === null ? 'Nothing to undo' : 'Undo: '.$undoable->name }}">{!! Icon::svg('undo-2') !!}</button>
<button class="icon-button" data-command="redo" @disabled($redoable === null) title="{{ $redoable === null ? 'Nothing to redo' : 'Redo: '.$redoable->name }} (Ctrl+Y)" aria-label="{{ $redoable === null ? 'Nothing to redo' : 'Redo: '.$redoable->name }}">{!! Icon::svg('redo-2') !!}</button>
