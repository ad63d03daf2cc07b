@use ('App\View\Icon')
<x-page title="{{ $project->name }}" class="bench">
    <header class="top">
        <a class="brand" href="{{ route('projects') }}" title="All projects" aria-label="Vine Shelf: all projects"><x-logo /></a>
        <h1 class="project-title" title="{{ $project->name }}">{{ $project->name }}</h1>
        <span class="crumb">
            @foreach ($sources->take(1) as $source)
                <a
                    href="{{ route('projects.report', [$project, $source]) }}"
                    >{{ $sources->count() === 1 ? 'one source' : $sources->count() . ' sources' }}</a
                >
            @endforeach
        </span>
        <span class="gap"></span>
        <div id="meter">@include ('workbench.meter')</div>
        <div id="history" class="history">
            @if ($bench->mayChange()) @include ('workbench.history') @endif
        </div>
        <button class="icon-button" data-command="commands" title="Every command and every name (Ctrl+K)" aria-label="Commands and names">
            {!! Icon::svg('command') !!}
        </button>
        <button class="icon-button" data-command="keys" title="Keys (?)" aria-label="Keys">{!! Icon::svg('help-circle') !!}</button>
        <x-person-menu />
    </header>
    <main
        class="work"
        id="work"
        data-base="{{ route('workbench', $project) }}"
        data-budget="{{ config('shelf.budget') }}"
        data-smoothing="{{ config('shelf.smoothing') }}"
        data-may-change="{{ $bench->mayChange() ? 1 : 0 }}"
        data-wants-picture="{{ $bench->mayChange() && $project->picture === '' ? 1 : 0 }}"
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
                ><span class="gap"></span>
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
                <button
                    class="icon-button"
                    id="kinds"
                    data-command="kinds"
                    title="Only some kinds, or all but some"
                    aria-label="Filter by kind"
                    aria-haspopup="menu"
                >
                    {!! Icon::svg('filter') !!}
                </button>
                <div class="offers" id="offers" role="listbox" aria-label="Ways to go on" hidden></div>
            </div>
            <div class="rule-says" id="rule-says" role="status"></div>
            <div class="hits-bar" id="hits-bar" role="toolbar" aria-label="What was found" hidden>
                <button class="icon-button" data-command="hit-back" title="The hit before (Shift+Enter)" aria-label="The hit before">
                    {!! Icon::svg('chevron-left') !!}
                </button>
                <span id="hit-place"></span>
                <button class="icon-button" data-command="hit-next" title="The next hit (Enter)" aria-label="The next hit">
                    {!! Icon::svg('chevron-right') !!}
                </button>
                <span class="gap"></span>
                <button class="button small" id="pick-found" data-command="hits-pick" title="Make the hits the pick (Ctrl+Enter)">
                    Pick
                </button>
                <button class="button small" data-command="hits-add" title="Add the hits to the pick">Add</button>
                <button class="button small" data-command="hits-remove" title="Take the hits from the pick">Take away</button>
                <button class="button small" data-command="hits-isolate" title="Look at the hits alone">Isolate</button>
            </div>
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
            <svg class="sketch" id="sketch" aria-hidden="true"></svg>
            <div class="region-tools" role="toolbar" aria-label="Picking in the canvas">
                @foreach ([
                        'click' => ['mouse-pointer-2', 'Pick one by one (Q)'],
                        'lasso' => ['lasso', 'Lasso (O)'],
                        'brush' => ['brush', 'Brush (B)'],
                        'polygon' => ['pentagon', 'Polygon: click its corners (P)'],
                        'circle' => ['circle-dashed', 'Circle (C)'],
                        'rectangle' => ['square-dashed', 'Rectangle (R)']
                    ]
                    as $tool => [$icon, $title])
                    <button
                        class="icon-button"
                        data-command="tool"
                        data-tool="{{ $tool }}"
                        aria-pressed="{{ $loop->first ? 'true' : 'false' }}"
                        title="{{ $title }}"
                        aria-label="{{ $title }}"
                    >
                        {!! Icon::svg($icon) !!}
                    </button>
                @endforeach
                <button
                    class="button small"
                    data-command="region-settings"
                    aria-haspopup="menu"
                    title="What regions catch: what they touch, or only what is fully inside (T)"
                >
                    <span id="touching">Touching</span> {!! Icon::svg('chevron-down') !!}
                </button>
                <span class="region-count" id="region-count" role="status"></span>
            </div>
            <div id="isolated" class="isolated-place">@include ('workbench.isolated')</div>
            <div class="tools" role="toolbar" aria-label="Canvas" aria-orientation="vertical">
                <button class="icon-button" data-command="fit-all" title="Fit all (A)" aria-label="Fit all">
                    {!! Icon::svg('maximize') !!}
                </button>
                <button class="icon-button" data-command="fit-pick" title="Fit the pick (F)" aria-label="Fit the pick">
                    {!! Icon::svg('focus') !!}
                </button>
                <button
                    class="icon-button"
                    data-command="sides"
                    title="Plan and four sides"
                    aria-label="Plan and four sides"
                    aria-haspopup="menu"
                >
                    {!! Icon::svg('cuboid') !!}
                </button>
                <button
                    class="icon-button"
                    data-command="parallel"
                    aria-pressed="false"
                    title="Parallel or perspective (K)"
                    aria-label="Parallel"
                >
                    {!! Icon::svg('frame') !!}
                </button>
                <button
                    class="icon-button"
                    data-command="viewpoint-back"
                    title="Previous viewpoint ([)"
                    aria-label="Previous viewpoint"
                    disabled
                >
                    {!! Icon::svg('arrow-left') !!}
                </button>
                <button class="icon-button" data-command="viewpoint-next" title="Next viewpoint (])" aria-label="Next viewpoint" disabled>
                    {!! Icon::svg('arrow-right') !!}
                </button>
                <button
                    class="icon-button"
                    data-command="hold"
                    aria-pressed="false"
                    title="Hold the camera where it is (H)"
                    aria-label="Hold the camera"
                >
                    {!! Icon::svg('pin') !!}
                </button>
                <button
                    class="icon-button"
                    data-command="cameras"
                    title="The model's own cameras"
                    aria-label="The model's own cameras"
                    aria-haspopup="menu"
                >
                    {!! Icon::svg('video') !!}
                </button>
                <button
                    class="icon-button"
                    data-command="walk"
                    aria-pressed="false"
                    title="Walk at eye height (W)"
                    aria-label="Walk at eye height"
                >
                    {!! Icon::svg('footprints') !!}
                </button>
                <button class="icon-button" data-command="tints" title="Tint by…" aria-label="Tint by" aria-haspopup="menu">
                    {!! Icon::svg('palette') !!}
                </button>
                <span id="desk-steps">@include ('workbench.desk-steps')</span>
            </div>
            <div class="hover-name" id="hover-name" aria-live="off" hidden></div>
            <div id="card">@include ('workbench.card')</div>
            <div class="legend" id="legend" role="group" aria-label="Legend of the tint" hidden></div>
            <div class="parked" id="parked" role="toolbar" aria-label="Parked picks">@include ('workbench.parked')</div>
            <p class="on-its-way" id="on-its-way" role="status"></p>
        </section>
        <section class="shelf" id="shelf" aria-label="Shelf of views">@include ('workbench.shelf')</section>
        <div class="menu" id="row-menu" popover role="menu" aria-label="Row"></div>
    </main>
    <p id="busy" class="busy" role="status" hidden></p>
    <div id="message" class="message" role="status" aria-live="polite"></div>
    <div id="canvas-state" hidden>@include ('workbench.state', ['more' => []])</div>
    <dialog id="dialog" aria-labelledby="dialog-title"></dialog>
    <script type="application/json" id="materials">
        @json($materials)
    </script>
</x-page>
