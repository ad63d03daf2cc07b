@use ('App\View\Marks')
<form class="ask" data-submit="patch" data-address="{{ route('views.update', [$bench->project, $view->no]) }}" data-picture data-camera>
    <h2 id="dialog-title">Update {{ $view->name }} from the desk</h2>
    @if ($view->keepsRungs())
        @if ($rows === [] && $objects === 0)
            <p>Its rungs are as the desk has them.</p>
        @else
            <p>
                {{ count($rows) }} {{ count($rows) === 1 ? 'layer' : 'layers' }} and
                {{ number_format($objects) }} {{ $objects === 1 ? 'object' : 'objects' }} change:
            </p>
            <ul class="differences">
                @foreach (array_slice($rows, 0, 40) as [$name, $kept, $now])
                    <li>
                        <span class="label" title="{{ $name }}">{{ $name }}</span>
                        {!! Marks::rung($kept, $kept) !!} {!! App\View\Icon::svg('arrow-right') !!} {!! Marks::rung($now, $now) !!}
                        <em>{{ $kept->label() }} to {{ $now->label() }}</em>
                    </li>
                @endforeach
                @if (count($rows) > 40)
                    <li>and {{ count($rows) - 40 }} more layers</li>
                @endif
            </ul>
        @endif
    @endif
    <label class="tick"
        ><input
            type="checkbox"
            name="keep_camera"
            value="1"
            @checked ($view->camera !== null)
            @if ($view->camera !== null) disabled @endif
        />
        {{ $view->camera !== null ? 'The camera is taken from the canvas' : 'keep the camera from now on' }}</label
    >
    @if ($view->camera !== null)
        <input type="hidden" name="keep_camera" value="1" />
    @endif
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button primary">Update</button> <button type="button" class="button" data-close>Leave it</button></p>
</form>
