<form class="ask unsure-layers" data-submit="post" data-address="{{ route('sources.match', [$bench->project, $source]) }}">
    <h2 id="dialog-title">Which layers are meant?</h2>
    @if ($unsure === [])
        <p>Every layer of {{ $source->name }} has found its place.</p>
    @else
        <p>{{ $source->name }} names layers of which there are several here. Until you say which, what it brought has layers of its own.</p>
        @foreach ($unsure as [$layer, $among])
            <p class="pair-line">
                <label for="unsure-{{ $layer->number }}">{{ $bench->layers()->path($layer->number) }}</label>
                <select id="unsure-{{ $layer->number }}" name="layer-{{ $layer->number }}" @if ($loop->first) autofocus @endif>
                    <option value="0">a layer of its own</option>
                    @foreach ($among as $other)
                        <option value="{{ $other->number }}">is {{ $bench->layers()->path($other->number) }}</option>
                    @endforeach
                </select>
            </p>
        @endforeach
    @endif
    <p class="error" role="alert" hidden></p>
    <p class="acts">
        @if ($unsure !== [])
            <button class="button primary">Match them</button>
        @endif
        <button type="button" class="button" data-close>{{ $unsure === [] ? 'Close' : 'Leave them' }}</button>
    </p>
</form>
