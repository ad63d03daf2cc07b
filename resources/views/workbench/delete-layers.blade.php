@php
    $numbers = array_map(fn ($layer) => $layer->number, $layers);
@endphp
<form class="ask" data-submit="delete" data-address="{{ route('layers.destroySeveral', $bench->project) }}">
    <h2 id="dialog-title">Delete {{ count($layers) }} layers</h2>
    <input type="hidden" name="keys" value="{{ implode(',', array_map(fn ($number) => "L$number", $numbers)) }}" />
    <p>{{ implode(', ', array_map(fn ($layer) => $layer->name, array_slice($layers, 0, 8))) }}{{
        count($layers) > 8 ? ' and ' . (count($layers) - 8) . ' more' : ''
    }}</p>
    @if ($nested > 0)
        <label class="tick"
            ><input type="checkbox" name="nested" value="1" /> And what is nested in them: {{ $nested }}
            {{ $nested === 1 ? 'layer' : 'layers' }}</label
        >
    @endif
    <label for="target">Their {{ $rows === 1 ? 'object goes' : number_format($rows) . ' objects go' }}</label>
    <select name="target" id="target" autofocus>
        <option value="above">to the layer above that stays, or Unsorted</option>
        <option value="1">to Unsorted</option>
        @foreach ($bench->layers()->walk() as [$other])
            @continue ($other->number === VineShelf\Layers\Layer::UNSORTED || in_array($other->number, $numbers, true))
            <option value="{{ $other->number }}">to {{ $bench->layers()->path($other->number) }}</option>
        @endforeach
        <option value="delete">away: delete them as well</option>
    </select>
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button danger">Delete</button> <button type="button" class="button" data-close>Keep them</button></p>
</form>
