@use ('App\View\Icon')
@use ('App\View\Marks')
@use ('App\Workbench\OnShelf')
@use ('VineShelf\Folders\Folder')
@use ('VineShelf\Rungs\Rung')
@use ('VineShelf\Views\Facet')
@php
    $icons = ['camera' => 'camera', 'output' => 'image', 'tint' => 'palette', 'section' => 'slice', 'isolation' => 'focus'];
    $comments = OnShelf::openComments($bench->project);
    $said = fn (int $count) => number_format($count) . ' ' . ($count === 1 ? 'comment' : 'comments') . ' of guests';
    $marks = array_map(Icon::svg(...), $icons) + ['rungs' => Marks::rung(Rung::Full, Rung::Full)];
@endphp
<ul class="views" role="list" aria-label="Views" data-stamp="{{ $shelfStamp }}">
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
            $new = $bench->newTo()->count($view);
            $more = $bench->moreInPictures()->count($view);
            $objects = number_format($more) . ($more === 1 ? ' object' : ' objects');
        @endphp
        <li
            class="view {{ $apart }}"
            id="shelf-V{{ $view->no }}"
            data-key="V{{ $view->no }}"
            data-within="{{ $within }}"
            draggable="{{ $bench->mayChange() ? 'true' : 'false' }}"
            data-view="{{ $view->no }}"
            data-name="{{ $view->name }}"
            data-newcomers="{{ $view->newcomers }}"
            data-new="{{ $new }}"
            @if ($view->camera !== null) data-camera="{{ $view->camera_held ? 'held' : 'kept' }}" @endif
            data-noted="{{ $view->note }}"
        >
            <button
                class="view-picture"
                data-command="apply-view"
                data-view="{{ $view->no }}"
                tabindex="{{ $loop->first ? 0 : -1 }}"
                aria-label="Apply {{ $view->name }}"
                title="{{ $view->name }}"
            >
                @if ($view->picture !== '')
                    <img
                        src="{{ route('views.picture', [$bench->project, $view->no]) }}?{{ substr(md5($view->picture), 0, 8) }}"
                        alt=""
                        draggable="false"
                        @class(['old' => $view->isPictureOld()])
                        @if ($view->isPictureOld()) title="The picture is from before; it is made anew when the view is applied" @endif
                    />
                @else
                    <x-logo />
                @endif
                @if ($new > 0)
                    <span class="badge" title="{{ number_format($new) }} came since it was kept or reviewed"
                        >{{ number_format($new) }} new</span
                    >
                @endif
                @if ($more > 0)
                    <span
                        class="badge more-in-pictures"
                        title="Pictures of it show {{ $objects }} that the desk hides when it is applied"
                        >{!! Icon::svg('image') !!}+{{ Marks::short($more) }}</span
                    >
                @endif
                <span class="facets">
                    @foreach ($view->facets() as $facet)
                        @php
                            $holds = $facet === Facet::Camera && $view->camera_held;
                        @endphp
                        <i title="{{ $holds ? 'Holds' : 'Keeps' }} {{ $facet->inWords() }}"
                            >{!! $holds ? Icon::svg('pin') : $marks[$facet->value] !!}</i
                        >
                    @endforeach
                </span>
            </button>
            <span class="view-name"
                ><span class="label" title="{{ $view->name }}{{ $view->note === '' ? '' : ': ' . $view->note }}">{{ $view->name }}</span>
                @if (isset($comments[$view->no]))
                    <button
                        class="commented"
                        tabindex="-1"
                        data-command="comments"
                        data-view="{{ $view->no }}"
                        title="What guests said of it"
                        aria-label="{{ $said($comments[$view->no]) }} on {{ $view->name }}"
                    >
                        {!! Icon::svg('message-square') !!}{{ number_format($comments[$view->no]) }}
                    </button>
                @endif
                @if ($view->note !== '')
                    <span class="noted" title="{{ $view->note }}">{!! Icon::svg('sticky-note') !!}</span>
                @endif
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
                    A view keeps what you see: keep one, change things, and come back to it with a click.
                @endif
            </p>
        </li>
    @endif
</ul>
