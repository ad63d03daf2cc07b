@use ('App\View\Icon')
<ul class="views" role="list" aria-label="Views">
    @foreach ($views as $view)
        @php
            $current = $bench->desk->view_no === $view->no;
            $new = $view->keepsRungs() ? VineShelf\Views\Applied::countNewcomers($bench->layers(), $view->known_layer) : 0;
        @endphp
        <li
            class="view @if ($current) current @endif"
            data-view="{{ $view->no }}"
            data-name="{{ $view->name }}"
            data-newcomers="{{ $view->newcomers }}"
            data-new="{{ $new }}"
        >
            <button
                class="view-picture"
                data-command="apply-view"
                data-view="{{ $view->no }}"
                tabindex="{{ $loop->first ? 0 : -1 }}"
                aria-label="Apply {{ $view->name }}"
                @if ($current) aria-current="true" @endif
                title="{{ $view->name }}"
            >
                @if ($view->picture !== '')
                    <img
                        src="{{ route('views.picture', [$bench->project, $view->no]) }}?{{ substr(md5($view->picture), 0, 8) }}"
                        alt=""
                        draggable="false"
                    />
                @else
                    <x-logo />
                @endif
                @if ($current && $differs)
                    <span class="differs" title="The desk differs from this view"
                        ><span class="unseen">The desk differs from this view</span></span
                    >
                @endif
                @if ($new > 0)
                    <span class="badge">{{ $new }} new {{ $new === 1 ? 'layer' : 'layers' }}</span>
                @endif
                <span class="facets">
                    @if ($view->camera !== null)
                        <i title="Keeps the camera">{!! Icon::svg('camera') !!}</i>
                    @endif
                    @if ($view->keepsRungs())
                        <i title="Keeps the rungs">{!! App\View\Marks::rung(VineShelf\Rungs\Rung::Full, VineShelf\Rungs\Rung::Full) !!}</i>
                    @endif
                </span>
            </button>
            <span class="view-name"
                ><span class="label" title="{{ $view->name }}">{{ $view->name }}</span>
                @if ($bench->mayChange())
                    <button
                        class="more-button"
                        tabindex="-1"
                        data-command="view-menu"
                        data-view="{{ $view->no }}"
                        aria-label="More for {{ $view->name }}"
                        aria-haspopup="menu"
                    >
                        {!! Icon::svg('ellipsis') !!}
                    </button>
                @endif
            </span>
        </li>
    @endforeach
    @if ($bench->mayChange())
        <li class="keep"><button data-command="keep-view" title="Keep this view (V)">{!! Icon::svg('plus') !!} Keep this view</button></li>
    @endif
    @if ($views->isEmpty())
        <li class="no-views">
            <p>
                No views yet.
                @if ($bench->mayChange())
                    A view keeps what you see, camera and rungs: keep one, change things, and come back to it with a click.
                @endif
            </p>
        </li>
    @endif
</ul>
