<p class="@if ($warns) warns @endif">
    <span>{{ $message }}</span>
    @if ($undo !== '')
        <button class="link" data-command="{{ $undo === 'desk' ? 'desk-undo' : 'undo' }}" data-change="{{ $change }}">Undo</button>
    @elseif ($instead !== null)
        <button class="link" data-command="{{ $insteadUndoes ? 'undo' : 'redo' }}" data-change="{{ $instead->no }}">
            {{ $insteadUndoes ? 'Undo' : 'Redo' }} “{{ $instead->name }}”
        </button>
    @endif
</p>
