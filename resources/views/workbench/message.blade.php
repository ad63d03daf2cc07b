<p class="@if ($warns) warns @endif">
    <span>{{ $message }}</span>
    @if ($undo !== '')
        @php ($command = ['desk' => 'desk-undo', 'both' => 'undo-both'][$undo] ?? 'undo')
        <button class="link" data-command="{{ $command }}" data-change="{{ $change }}">Undo</button>
        @if ($viewsDiffer > 0)
            <button class="link" data-command="views-as-they-were" data-change="{{ $change }}">
                Keep {{ $viewsDiffer === 1 ? 'it' : 'those' }} as before
            </button>
        @endif
    @elseif ($instead !== null)
        <button class="link" data-command="{{ $insteadUndoes ? 'undo' : 'redo' }}" data-change="{{ $instead->no }}">
            {{ $insteadUndoes ? 'Undo' : 'Redo' }} “{{ $instead->name }}”
        </button>
    @endif
</p>
