<p class="@if ($warns) warns @endif">
    <span>{{ $message }}</span>
    @if ($undo !== '')
        @php ($command = ['desk' => 'desk-undo', 'both' => 'undo-both'][$undo] ?? 'undo')
        <button class="link" data-command="{{ $command }}" data-change="{{ $change }}">Undo</button>
    @elseif ($instead !== null)
        <button class="link" data-command="{{ $insteadUndoes ? 'undo' : 'redo' }}" data-change="{{ $instead->no }}">
            {{ $insteadUndoes ? 'Undo' : 'Redo' }} “{{ $instead->name }}”
        </button>
    @endif
</p>
