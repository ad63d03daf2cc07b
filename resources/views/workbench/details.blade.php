@if ($details !== null)
    @php ($note = $details->note())
    <div class="details-list">
        @foreach ($details->groups() as $heading => $lines)
            @if ($heading !== '')
                <h3 class="details-heading">{{ $heading }}</h3>
            @endif
            @foreach ($lines as $line)
                <span class="details-label" title="{{ $line->label }}">{{ $line->label }}</span>
                <span class="details-value" title="{{ $line->values ?: $line->text }}">{{ $line->text }}</span>
                <span class="details-more">
                    @if ($line->same !== '')
                        <button class="link" data-same="{{ $line->same }}" title="Pick everything with the same">
                            {{ $line->note ?: 'pick the same' }}
                        </button>
                    @else
                        {{ $line->note }}
                    @endif
                    @if ($line->own !== '' && $bench->mayChange())
                        <button
                            class="link"
                            data-own="{{ $line->own }}"
                            data-value="{{ $line->text }}"
                            title="Change it on all that is picked"
                        >
                            own
                        </button>
                    @endif
                </span>
            @endforeach
        @endforeach
        @if ($details->heldBack() !== '')
            <span class="details-label">Exports</span>
            <span class="details-value details-note">leave it out: {{ $details->heldBack() }}</span>
            <span></span>
        @endif
        @if ($details->fileHeldBack() !== '')
            <span class="details-label">Exports</span>
            <span class="details-value details-note">leave its file out: {{ $details->fileHeldBack() }}</span>
            <span></span>
        @endif
        @if ($note !== '')
            <span class="details-label">Note</span> <span class="details-value details-note">{{ $note }}</span> <span></span>
        @endif
    </div>
    @if ($bench->mayChange())
        <p class="details-acts">
            <button class="link" data-own="">+ property</button>
            <button class="link" data-own="~note">{{ $note === '' ? '+ note' : 'Change the note' }}</button>
            <button class="link" data-own="~export">{{ $details->heldBack() === '' ? 'Not for export' : 'Why not for export' }}</button>
            <button class="link" data-own-colour="{{ $details->colour() ?: '#888888' }}">
                {{ $details->colour() === '' ? '+ own colour' : 'Change its own colour' }}
            </button>
            @if ($details->colour() !== '')
                <button class="link" data-own-colour-off>No own colour</button>
            @endif
        </p>
    @endif
@endif
