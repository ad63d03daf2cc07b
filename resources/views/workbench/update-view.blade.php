@use ('App\View\Icon')
@use ('App\View\Marks')
@use ('VineShelf\Rungs\Rung')
@use ('VineShelf\Views\Facet')
@php
    $rows = $from->rows();
    $difference = $from->difference();
    $shown = array_filter([
        'appear' => $difference->onlySecond()->count(),
        'vanish' => $difference->onlyFirst()->count(),
        'change rung' => $difference->otherwise()->count(),
    ]);
    $words = $from->inWords();
@endphp
<form class="ask" data-submit="patch" data-address="{{ route('views.update', [$bench->project, $view->no]) }}" data-picture data-camera>
    <h2 id="dialog-title">Update {{ $view->name }} from the desk</h2>
    <div class="before-after">
        <figure>
            @if ($view->picture !== '')
                <img src="{{ route('views.picture', [$bench->project, $view->no]) }}?{{ substr(md5($view->picture), 0, 8) }}" alt="" />
            @else
                <span class="no-picture"><x-logo /></span>
            @endif
            <figcaption>As it is kept</figcaption>
        </figure>
        <figure><img data-canvas-picture alt="" /><figcaption>As the desk has it</figcaption></figure>
    </div>
    @if ($words === [])
        <p>It keeps what the desk has, but for the camera.</p>
    @else
        <p>The desk has {{ implode('; ', $words) }}.</p>
    @endif
    @if ($view->keepsRungs() && $shown !== [])
        <p>
            Objects: @foreach ($shown as $how => $count)
                <strong>{{ number_format($count) }}</strong> {{ $how }}{{ $loop->last ? '.' : ',' }}
            @endforeach
        </p>
    @endif
    @if ($rows !== [])
        <ul class="differences">
            @foreach (array_slice($rows, 0, 40) as [$name, $kept, $now])
                <li>
                    <span class="label" title="{{ $name }}">{{ $name }}</span>
                    {!! Marks::rung($kept ?? Rung::Full, $kept ?? Rung::Full) !!} {!! Icon::svg('arrow-right') !!}
                    {!! Marks::rung($now ?? Rung::Full, $now ?? Rung::Full) !!}
                    <em>{{ ($kept ?? Rung::Full)->label() }} to {{ ($now ?? Rung::Full)->label() }}</em>
                </li>
            @endforeach
            @if (count($rows) > 40)
                <li>and {{ count($rows) - 40 }} more rows</li>
            @endif
        </ul>
    @endif
    @if ($lowered !== null) @include ('workbench.lowered') @endif
    @if ($view->camera_held)
        <p class="hint">It holds its camera, which stays as it is.</p>
    @elseif ($view->keeps(Facet::Camera))
        <label class="tick"><input type="checkbox" name="keep_camera" value="1" /> Take the camera from the canvas as well</label>
    @else
        <label class="tick"><input type="checkbox" name="keep_camera" value="1" /> Keep the camera from now on</label>
    @endif
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button primary">Update</button> <button type="button" class="button" data-close>Leave it</button></p>
</form>
