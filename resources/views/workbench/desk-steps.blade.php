@php
    $back = $deskUndoable === null ? 'Nothing on the desk to take back' : 'Take back on the desk: '.$deskUndoable->name;
    $again = $deskRedoable === null ? 'Nothing on the desk to do again' : 'Again on the desk: '.$deskRedoable->name;
@endphp
@include ('workbench.steps', [
    'steps' => [['desk-undo', 'rotate-ccw', $deskUndoable, $back, 'Z'], ['desk-redo', 'rotate-cw', $deskRedoable, $again, 'Shift+Z']],
])
