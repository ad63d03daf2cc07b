@include ('workbench.steps', [
    'steps' => [
        ['undo', 'undo-2', $undoable, $undoable === null ? 'Nothing to undo' : 'Undo: '.$undoable->name, 'Ctrl+Z'],
        ['redo', 'redo-2', $redoable, $redoable === null ? 'Nothing to redo' : 'Redo: '.$redoable->name, 'Ctrl+Y'],
    ],
])
