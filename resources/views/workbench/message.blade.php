<p class="@if ($warns) warns @endif">
    <span>{{ $message }}</span>
    @if ($held !== null)
        @foreach ($held->named() as $holder)
            <button
                class="link"
                data-command="mend-held"
                data-keys="{{ $heldKeys }}"
                data-on="{{ $heldOn }}"
                data-what="{{ $holder->what }}"
                data-number="{{ $holder->number }}"
                data-side="{{ $held->side->name() }}"
            >
                {{ $held->mend($holder) }}
            </button>
        @endforeach
        @if (count($held->holders) > 1)
            <button
                class="link"
                data-command="mend-held"
                data-keys="{{ $heldKeys }}"
                data-on="{{ $heldOn }}"
                data-what="all"
                data-side="{{ $held->side->name() }}"
            >
                Raise all
            </button>
        @endif
        <button class="link" data-command="why-held" data-keys="{{ $heldKeys }}"
                data-on="{{ $heldOn }}" data-side="{{ $held->side->name() }}">Why</button>
    @endif
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
