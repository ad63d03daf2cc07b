<form class="ask" data-submit="delete" data-address="{{ route('layers.destroy', [$bench->project, $layer->number]) }}">
    <h2 id="dialog-title">Delete layer {{ $layer->name }}</h2>
    @if ($objects > 0)
        <p>
            {{ number_format($objects) }} {{ $objects === 1 ? 'object is' : 'objects are' }} filed under it. Where do
            {{ $objects === 1 ? 'it' : 'they' }} go?
        </p>
        <label for="target">Objects</label>
        <select name="target" id="target">
            @if ($layer->parent !== 0)
                <option value="{{ $layer->parent }}">to the layer above: {{ $bench->layers()->get($layer->parent)->name }}</option>
            @endif
            <option value="1">to Unsorted</option>
            @foreach ($bench->layers()->walk() as [$other, $depth])
                @continue (in_array($other->number, [$layer->number, VineShelf\Layers\Layer::UNSORTED, $layer->parent], true))
                <option value="{{ $other->number }}">to {{ $bench->layers()->path($other->number) }}</option>
            @endforeach
            <option value="delete">
                delete them as well{{ $held > 0 ? ', and ' . number_format($held) . ' that they hold from other layers' : '' }}
            </option>
        </select>
    @else
        <p>Nothing is filed under it.</p>
    @endif
    @if ($bench->desk->landing_layer === $layer->number)
        <label for="landing">New objects land in</label>
        <select name="landing" id="landing">
            @foreach ($bench->layers()->walk() as [$other])
                @continue ($other->number === $layer->number)
                <option value="{{ $other->number }}" @selected ($other->number === $layer->parent)>{{
                    $bench->layers()->path($other->number)
                }}</option>
            @endforeach
        </select>
    @endif
    @if ($bench->layers()->inside($layer->number) !== [])
        <p>The {{ count($bench->layers()->inside($layer->number)) === 1 ? 'layer' : 'layers' }} inside it will stand where it stood.</p>
    @endif
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button danger">Delete</button> <button type="button" class="button" data-close>Keep it</button></p>
</form>
