@use ('App\View\Icon')
@use ('VineShelf\Folders\Folder')
<ul class="views" role="list" aria-label="Views">
    @foreach ($bench->shelf()->walk() as [$view, $above])
        @php
            $within = implode(' ', array_map(fn ($folder) => "F$folder", $above));
            $apart = $loop->index > 0 && count($above) < $depth ? 'apart' : '';
            $depth = count($above) + ($view instanceof Folder ? 1 : 0);
        @endphp
        @if ($view instanceof Folder)
            <li
                class="shelf-folder {{ $apart }}"
                id="shelf-F{{ $view->number }}"
                data-key="F{{ $view->number }}"
                data-name="{{ $view->name }}"
                data-within="{{ $within }}"
                data-depth="{{ min(3, count($above)) }}"
                draggable="{{ $bench->mayChange() ? 'true' : 'false' }}"
            >
                <button
                    class="spine"
                    aria-expanded="true"
                    tabindex="{{ $loop->first ? 0 : -1 }}"
                    aria-label="{{ $view->name }}, folder of {{ count($bench->shelf()->within($view->number)) }}"
                    title="{{ $view->name }}"
                >
                    <span class="label">{{ $view->name }}</span>
                </button>
                <span class="spine-count" aria-hidden="true">{{ count($bench->shelf()->within($view->number)) }}</span>
            </li>
            @continue
        @endif
        @php
            $current = $bench->desk->view_no === $view->no;
            $new = $view->keepsRungs() ? VineShelf\Views\Applied::countNewcomers($bench->layers(), $view->known_layer) : 0;
        @endphp
        <li
            class="view {{ $apart }} @if ($current) current @endif"
            id="shelf-V{{ $view->no }}"
            data-key="V{{ $view->no }}"
            data-within="{{ $within }}"
            draggable="{{ $bench->mayChange() ? 'true' : 'false' }}"
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
    @if ($bench->shelf()->members === [])
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
