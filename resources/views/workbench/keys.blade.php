<form method="dialog" class="keys">
    <h2 id="dialog-title">Keys</h2>
    <div>
        @foreach ([
            'Canvas' => ['Left click' => 'pick', 'Shift + click' => 'add', 'Alt + click' => 'take away', 'Right button' => 'orbit', 'Middle button' => 'pan', 'Wheel' => 'zoom to the pointer', 'A' => 'fit all', 'F' => 'fit the pick', 'Esc' => 'clear the pick'],
            'Ledger' => ['↑ ↓' => 'move', '→ ←' => 'unfold, fold', 'Space, Enter' => 'pick', 'Shift + ↑ ↓' => 'pick a range', '5 … 0' => 'Full, Plain, Coarse, Ghost, Box, Hidden', 'L' => 'open, guard, lock', 'F2' => 'rename', 'N' => 'new layer', 'Delete' => 'delete layer', 'Shift + F10' => 'more'],
            'Pick' => ['U' => 'file under', 'Shift + N' => 'new layer from the pick', 'Y' => 'why'],
            'Views' => ['V' => 'keep this view', '← →' => 'step along the shelf'],
            'Take back' => ['Ctrl + Z, Ctrl + Y' => 'undo, redo in the project', 'Z, Shift + Z' => 'take back, do again on the desk', '/' => 'find by name', '?' => 'this sheet'],
        ] as $part => $keys)
            <section><h3>{{ $part }}</h3><dl>@foreach ($keys as $key => $what)<dt>{{ $key }}</dt><dd>{{ $what }}</dd>@endforeach</dl></section>
        @endforeach
    </div>
    <p class="acts"><button class="button" value="close">Close</button></p>
</form>
