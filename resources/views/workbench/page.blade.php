@use ('App\View\Icon')
<x-page title="{{ $project->name }}" class="bench" :window="$window">
    <header class="top">
        <a class="brand" href="{{ route('projects') }}" title="All projects" aria-label="Vine Shelf: all projects"><x-logo /></a>
        <h1 class="project-title" title="{{ $project->name }}">{{ $project->name }}</h1>
        @php
            $listed = $sources->map(fn ($source) => ['name' => $source->name, 'report' => route('projects.report', [$project, $source])]);
        @endphp
        <span class="crumb">
            <button
                class="link"
                id="sources"
                data-command="sources"
                data-sources="{{ $listed->values()->toJson() }}"
                aria-haspopup="menu"
                title="The files that it is made of, and their reports"
                >{{ $sources->count() === 1 ? 'one source' : $sources->count() . ' sources' }}</button
            >
        </span>
        <span class="intake" id="intake" data-open="{{ $intakes }}" hidden>
            <span class="bar" role="progressbar" aria-label="Taking a file in" aria-valuemin="0" aria-valuemax="100" aria-valuenow="0"
                ><i></i
            ></span>
            <span class="intake-says" role="status"></span>
            <button class="icon-button" data-stop="" title="Stop" aria-label="Stop taking it in">{!! Icon::svg('x') !!}</button>
        </span>
        <input
            id="add-file-input"
            type="file"
            class="unseen"
            tabindex="-1"
            multiple
            accept=".glb,.gltf,.zip,.bin,.png,.jpg,.jpeg,.webp"
            aria-label="A file to add"
        />
        <span class="gap"></span>
        <div id="sides" class="sides-place">@include ('workbench.sides')</div>
        <div id="meter">@include ('workbench.meter')</div>
        <x-tool command="sorting-rules" icon="list-ordered" title="Sorting rules (Alt+A)" />
        <x-tool command="tidy" icon="brush-cleaning" title="Tidy: what is untidy in the model (Alt+T)" label="Tidy" />
        <x-tool command="history" icon="history" title="History: every change (Alt+Z)" label="History" />
        <div id="history" class="history">
            @if ($bench->mayChange()) @include ('workbench.history') @endif
        </div>
        <x-tool command="commands" icon="command" title="Every command and every name (Ctrl+K)" label="Commands and names" />
        <x-tool command="keys" icon="help-circle" title="Keys (?)" />
        <x-person-menu />
    </header>
    <main
        @class (['work', 'ledger-alone' => $isAlone])
        id="work"
        data-base="{{ route('workbench', $project) }}"
        data-budget="{{ $budget }}"
        data-smoothing="{{ config('shelf.smoothing') }}"
        data-resolution="{{ config('shelf.resolution') }}"
        data-may-change="{{ $bench->mayChange() ? 1 : 0 }}"
        data-wants-picture="{{ $bench->mayChange() && $project->wantsPicture() ? 1 : 0 }}"
        style="--tracks: {{ $bench->arrangement()->tracks() }}"
    >
        <section class="ledger" aria-label="Ledger">
            <div class="lenses">
                <span role="tablist" aria-label="Lens">
                    @foreach (App\Bench\Arrangement::LENSES as $lens => $label)
                        <button
                            role="tab"
                            id="lens-{{ $lens }}"
                            data-lens="{{ $lens }}"
                            aria-controls="ledger-grid"
                            aria-selected="{{ $ledger->name === $lens ? 'true' : 'false' }}"
                            tabindex="{{ $ledger->name === $lens ? 0 : -1 }}"
                        >
                            {{ $label }}
                        </button>
                    @endforeach</span
                ><button
                    id="more-lenses"
                    class="more-lenses"
                    data-command="more-lenses"
                    aria-haspopup="menu"
                    title="More lenses"
                >
                    More
                </button>
                <span class="gap"></span>
                <span id="ledger-tools" class="ledger-tools">@include ('workbench.ledger-tools')</span>
            </div>
            <div class="find">
                {!! Icon::svg('search') !!}
                <input
                    id="words"
                    type="search"
                    role="combobox"
                    aria-expanded="false"
                    aria-controls="offers"
                    aria-autocomplete="list"
                    placeholder="Part of a name, or a rule like kind:part width > 2m"
                    aria-label="Find by name or rule"
                    aria-describedby="rule-says"
                    autocomplete="off"
                    spellcheck="false"
                    maxlength="4000"
                />
                <span id="hits" role="status"></span>
                <x-tool
                    command="kinds"
                    icon="filter"
                    title="Only some kinds, or all but some"
                    label="Filter by kind"
                    id="kinds"
                    aria-haspopup="menu"
                />
                <div class="offers" id="offers" role="listbox" aria-label="Ways to go on" hidden></div>
            </div>
            <div class="rule-says" id="rule-says" role="status"></div>
            <div class="named-bar" id="named-bar" hidden>
                {!! Icon::svg('text-search') !!}
                <input
                    id="named"
                    type="search"
                    placeholder="Part of a row's own name"
                    aria-label="Find layers, tags or sets by their own names"
                    autocomplete="off"
                    spellcheck="false"
                    maxlength="200"
                />
                <x-tool command="narrow-rows-end" icon="x" title="All rows again (Esc)" />
            </div>
            <div class="hits-bar" id="hits-bar" role="toolbar" aria-label="What was found" hidden>
                <x-tool command="hit-back" icon="chevron-left" title="The hit before (Shift+Enter)" />
                <span id="hit-place"></span>
                <x-tool command="hit-next" icon="chevron-right" title="The next hit (Enter)" />
                <span class="gap"></span>
                <x-tool command="rule-back" id="rule-back" icon="undo-2" title="One step of the rule back" hidden />
                <button class="button small" id="pick-found" data-command="hits-pick" title="Make the hits the pick (Ctrl+Enter)">
                    Pick
                </button>
                <x-tool command="hits-add" icon="plus" title="Add the hits to the pick" />
                <x-tool command="hits-remove" icon="minus" title="Take the hits from the pick" />
                <button class="button small" data-command="hits-isolate" title="Look at the hits alone">Isolate</button>
                <x-tool command="hits-show" icon="eye" title="Show the hits" />
                <x-tool command="hits-hide" icon="eye-off" title="Hide the hits" />
                <button
                    class="icon-button"
                    data-command="hits-rung"
                    aria-haspopup="menu"
                    title="Rung of the hits…"
                    aria-label="Rung of the hits"
                >
                    {!! App\View\Marks::rung(VineShelf\Rungs\Rung::Coarse, VineShelf\Rungs\Rung::Coarse) !!}
                </button>
                <button
                    class="button small"
                    data-command="keep-set"
                    data-of="rule"
                    title="Keep as a set: the rule live, or the hits as a fixed one (S)"
                >
                    As set…
                </button>
                <x-tool command="pin-rule" icon="pin" title="Pin the rule beside the slots" />
                <button class="button small primary" id="rule-keep" data-command="rule-keep" hidden></button>
            </div>
            <div class="grid-strip" id="grid-strip">@include ('workbench.grid-strip')</div>
            <div
                class="grid"
                role="treegrid"
                id="ledger-grid"
                aria-label="Layers and objects"
                aria-multiselectable="true"
                aria-rowcount="{{ $ledger->lens()->total() + 1 }}"
            >
                <div class="scroll" id="scroll" role="presentation">
                    <div class="row head" role="row" aria-rowindex="1" id="ledger-head">@include ('workbench.head')</div>
                    <div class="spacer" id="spacer" role="presentation">
                        <div class="rows" id="rows" role="rowgroup">@include ('workbench.rows')</div>
                    </div>
                </div>
            </div>
            <div class="grid-bar" id="grid-bar" role="toolbar" aria-label="What is done with the chosen cells" hidden>
                @include ('workbench.grid-bar')
            </div>
            <footer class="foot" id="foot">@include ('workbench.foot')</footer>
        </section>
        <div
            class="divider"
            role="separator"
            tabindex="0"
            aria-orientation="vertical"
            aria-label="Width of the ledger"
            aria-valuemin="360"
            aria-valuemax="900"
            aria-valuenow="496"
        ></div>
        <section class="weight-panel" id="weight" aria-label="Weight" hidden></section>
        <section class="weight-panel" id="tidy" aria-label="Tidy" hidden></section>
        <section class="weight-panel" id="changes" aria-label="History" hidden></section>
        <section class="weight-panel" id="sorting-rules" aria-label="Sorting rules" hidden></section>
        <section class="canvas" id="canvas" aria-label="Canvas">
            <canvas
                tabindex="0"
                role="img"
                aria-label="The model"
                aria-describedby="canvas-keys"
            ></canvas>
            <p class="unseen" id="canvas-keys">
                Left button picks, right button orbits, middle button pans, the wheel zooms; arrow keys orbit, with Shift they pan, plus and
                minus zoom. With a region tool, arrow keys move a cross, Space sets a corner, Enter closes the region.
            </p>
            <svg class="marker" id="marker" aria-hidden="true"></svg>
            <svg class="pick-marks" id="pick-marks" aria-hidden="true"></svg>
            <svg class="view-frame" id="view-frame" aria-hidden="true"></svg>
            <div class="comment-mark" id="comment-mark" hidden>
                <div role="note" aria-label="What a guest said here">
                    <p><strong></strong></p>
                    <p class="words"></p>
                    <p class="acts"><button type="button" class="button small">Close</button></p>
                </div>
            </div>
            <svg class="sketch" id="sketch" aria-hidden="true"></svg>
            <svg class="section-marks" id="section-marks" role="group" aria-label="Handles of the section"></svg>
            <div class="region-tools" role="toolbar" aria-label="Picking in the canvas">
                @foreach ([
                        'click' => ['mouse-pointer-2', 'Pick one by one (Q)'],
                        'polygon' => ['pentagon', 'Polygon: click its corners (P)'],
                        'brush' => ['brush', 'Brush (B)'],
                        'rectangle' => ['square-dashed', 'Rectangle (R)'],
                        'lasso' => ['lasso', 'Lasso (O)'],
                        'circle' => ['circle-dashed', 'Circle (C)']
                    ]
                    as $tool => [$icon, $title])
                    <x-tool
                        command="tool"
                        :icon="$icon"
                        :title="$title"
                        :label="$title"
                        data-tool="{{ $tool }}"
                        aria-pressed="{{ $loop->first ? 'true' : 'false' }}"
                    />
                @endforeach
                <button
                    class="button small"
                    data-command="region-settings"
                    aria-haspopup="menu"
                    title="What regions catch: what they touch, or only what is fully inside; T switches"
                >
                    <span id="touching">Touching</span> {!! Icon::svg('chevron-down') !!}
                </button>
                <button
                    class="button small"
                    data-command="taking"
                    aria-haspopup="menu"
                    title="What a click, a region and the pointer take; X goes on to the next, a double click steps into a group, Esc out"
                >
                    <span id="taking">Part</span> {!! Icon::svg('chevron-down') !!}
                </button>
                <span class="region-count" id="region-count" role="status"></span>
            </div>
            <div id="isolated" class="isolated-place">@include ('workbench.isolated')</div>
            <div class="tools" role="toolbar" aria-label="Canvas" aria-orientation="vertical">
                <x-tool command="fit-all" icon="maximize" title="Fit all (A)" />
                <x-tool command="fit-pick" icon="focus" title="Fit the pick (F)" />
                <x-tool command="sides" icon="cuboid" title="Plan and four sides" aria-haspopup="menu" />
                <x-tool command="parallel" icon="frame" title="Parallel or perspective (K)" label="Parallel" aria-pressed="false" />
                <x-tool command="viewpoint-back" icon="arrow-left" title="Previous viewpoint ([)" disabled />
                <x-tool command="viewpoint-next" icon="arrow-right" title="Next viewpoint (])" disabled />
                <x-tool command="hold" icon="pin" title="Hold the camera where it is (H)" label="Hold the camera" aria-pressed="false" />
                <x-tool command="cameras" icon="video" title="The model's own cameras" aria-haspopup="menu" />
                <x-tool command="walk" icon="footprints" title="Walk at eye height (W)" aria-pressed="false" />
                <x-tool command="section" icon="slice" title="Section: box and planes (Shift+X); Shift+T on and off" label="Section" />
                <x-tool command="showing" icon="eye" title="Show, hide, thin out, edges" aria-haspopup="menu" />
                <x-tool command="tints" icon="palette" title="Tint by…" aria-haspopup="menu" />
                <span id="desk-steps">@include ('workbench.desk-steps')</span>
            </div>
            <div class="hover-name" id="hover-name" aria-live="off" hidden></div>
            <div id="card">@include ('workbench.card')</div>
            @include ('workbench.section')
            <div class="legend" id="legend" role="group" aria-label="Legend of the tint" hidden></div>
            <div class="parked" id="parked" role="toolbar" aria-label="Parked picks">@include ('workbench.parked')</div>
            <div class="below">
                <button
                    class="link"
                    id="coarser"
                    aria-pressed="false"
                    title="Tint what is drawn coarser than its rung lets through, so that the graphics card has no more to do than it may"
                    hidden
                ></button>
                <p class="on-its-way" id="on-its-way" role="status"></p>
            </div>
        </section>
        <div class="shelf-find" id="shelf-find" role="search" aria-label="Views">
            <x-tool command="find-view" icon="search" title="Find a view on the shelf (Alt+S)" />
            <input type="search" placeholder="Part of a name" aria-label="Part of a view's name or note" maxlength="120" />
        </div>
        <section class="shelf" id="shelf" aria-label="Shelf of views">@include ('workbench.shelf')</section>
        <div class="menu" id="row-menu" popover role="menu" aria-label="Row"></div>
        <div class="menu unfolded" id="unfolded" popover="manual" role="menu" aria-label="Rungs"></div>
        @unless ($isAlone) @include ('workbench.hints') @endunless
    </main>
    <p id="busy" class="busy" role="status" hidden></p>
    <div id="message" class="message" role="status" aria-live="polite"></div>
    <div id="canvas-state" hidden>@include ('workbench.state', ['more' => []])</div>
    <dialog id="dialog" aria-labelledby="dialog-title"></dialog>
    <script type="application/json" id="materials">
        @json($materials)
    </script>
</x-page>
