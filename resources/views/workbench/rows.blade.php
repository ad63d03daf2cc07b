@use ('App\View\Icon')
@use ('App\View\KindIcon')
@use ('App\View\Marks')
@php
    $rows = $ledger->rows();
    $heaviest = $ledger->heaviest();
    $words = $ledger->words;
    $found = $ledger->found();
    $arrangement = $bench->arrangement();
    $titles = new App\Workbench\RungTitles($bench, $rows, false);
    $pictureTitles = new App\Workbench\RungTitles($bench, $rows, true);
    $memberships = new App\Ledger\Memberships($bench);
    $over = $memberships->columns();
    $slots = new App\Ledger\Slots($bench);
    $columns = $ledger->columns;
    $givesBack = new App\Ledger\GivesBack($bench->desk->beforeHiding());
@endphp
<div
    class="window"
    role="presentation"
    data-from="{{ $ledger->from }}"
    data-total="{{ $ledger->lens()->total() }}"
    data-lens="{{ $ledger->name }}"
    data-hits="{{ $found->rows?->count() }}"
    data-says="{{ $found->error?->getMessage() ?? implode(' ', array_map(fn ($remark) => $remark->sentence, $found->remarks)) }}"
    data-tracks="{{ $arrangement->tracks($columns->tracks()) }}"
    data-width="{{ $arrangement->width($columns->pixels()) }}"
    @if ($columns->isOn())
        data-views="{{ count($columns->all) }}"
        data-view-keys="{{ implode(',', array_map(fn ($view) => "V$view->no", $columns->all)) }}"
        data-left="{{ $columns->left }}"
        data-across="{{ count($columns->views) }}"
        data-cell="{{ $columns->width() }}"
    @endif
    data-follow="{{ $arrangement->follows ? 1 : 0 }}"
    data-rule="{{ $words }}"
    data-named="{{ $ledger->named }}"
    data-revision="{{ $bench->project->revision }}"
    data-desk="{{ $bench->desk->revision }}"
>
    @foreach ($rows as $index => $row)
        @php
            $title = $row->name === '' ? 'unnamed ' . $row->kind : $row->name;
        @endphp
        <div
            class="{{ $row->classes() }}"
            role="row"
            id="row-{{ $row->key }}"
            data-key="{{ $row->key }}"
            data-kind="{{ $row->kind }}"
            data-name="{{ $row->name }}"
            data-lock="{{ $row->ownLock->value }}"
            @if ($row->lock === VineShelf\Locks\Lock::Locked) data-locked="1" @endif
            data-own="{{ $row->own->value }}"
            @if ($row->pictures !== null) data-output="{{ $row->pictures->own?->word() ?? 'none' }}" @endif
            data-colour="{{ $row->colour }}"
            @if ($row->about !== null)
                data-line="{{ $row->about->line->value }}"
                data-one="{{ $row->about->oneAtATime ? 1 : 0 }}"
                data-choice="{{ $row->about->isShown === null ? '' : (int) $row->about->isShown }}"
                data-holds="{{ $row->about->holds }}"
                data-rule="{{ $row->about->rule }}"
                data-missing="{{ $row->about->missing }}"
            @endif
            @if (! $row->isObject()) data-condition="{{ $row->condition() }}" @endif
            @if (($row->isObject() || $row->isOrganizer()) && $bench->mayChange() && $row->key !== 'L1') draggable="true" @endif
            tabindex="-1"
            aria-level="{{ $row->level }}"
            aria-rowindex="{{ $ledger->from + $index + 2 }}"
            aria-selected="{{ $row->isPicked ? 'true' : 'false' }}"
            @if ($row->foldable) aria-expanded="{{ $row->unfolded ? 'true' : 'false' }}" @endif
            style="--level: {{ $row->level }}"
        >
            <span role="gridcell" class="name">
                @if ($row->foldable)
                    <button class="fold" tabindex="-1" aria-label="{{ $row->unfolded ? 'Fold' : 'Unfold' }} {{ $title }}">
                        {!! Icon::svg($row->unfolded ? 'chevron-down' : 'chevron-right') !!}
                    </button>
                @else
                    <span class="fold"></span>
                @endif
                @if ($row->about?->isShown !== null)
                    <button
                        class="choice"
                        tabindex="-1"
                        aria-label="{{ $row->about->isShown ? 'Shown' : 'Show' }} {{ $title }}"
                        title="{{ $row->about->isShown ? 'This one is shown' : 'Show this one instead' }} (>)"
                    >
                        {!! Icon::svg($row->about->isShown ? 'circle-dot' : 'circle') !!}
                    </button>
                @endif
                @php ($objectKind = $row->objectKind())
                @if (KindIcon::isThere($objectKind))
                    <span class="row-icon kind-icon" title="{{ ucfirst($objectKind) }}">{!! KindIcon::of($objectKind) !!}</span>
                @endif
                @if ($row->kind === 'folder' || $row->kind === 'set')
                    <span class="row-icon">{!! Icon::svg($row->icon()) !!}</span>
                @endif
                @if ($row->colour !== '')
                    <span
                        class="swatch kind-{{ $row->kind }} line-{{ $row->about?->line->value ?? 0 }}"
                        style="--swatch: {{ $row->colour }}"
                    ></span>
                @endif
                <span class="label @if ($row->name === '') unnamed @endif" title="{{ $title }}">{{ $title }}</span>
                @if ($row->about !== null) @include ('workbench.row-about', ['about' => $row->about]) @endif
                @if ($row->landing)
                    <span class="landing" title="New objects land here">{!! Icon::svg('leaf') !!}</span>
                @endif
                @foreach ($slots->of($row) as $slot)
                    <span class="slot-mark" title="Parked in slot {{ $slot }}">{{ $slot }}</span>
                @endforeach
                @if (!$row->isObject() && $row->picked > 0)
                    <span class="pill" title="{{ number_format($row->picked) }} picked">{{ number_format($row->picked) }}</span>
                @endif
            </span>
            @foreach ($arrangement->columns as $column)
                @switch ($column->id)
                    @case ('count')
                        <span role="gridcell" class="count">
                            @if ($row->isObject() || ! $row->count)
                                {{ $row->count === null ? '' : number_format($row->count) }}
                            @else
                                <button
                                    class="count"
                                    tabindex="-1"
                                    title="Pick what it holds (Enter); Shift adds, Alt takes away"
                                    aria-label="Pick {{ number_format($row->count) }} of {{ $title }}"
                                >
                                    {{ number_format($row->count) }}
                                </button>
                            @endif
                        </span>
                        @break
                    @case ('weigh')
                        <span role="gridcell" class="weigh" title="{{ number_format($row->triangles) }} triangles"
                            ><span class="weight"><i style="width: {{ $row->share($heaviest) }}%"></i></span
                        ></span>
                        @break
                    @case ('desk')
                        <span role="gridcell" class="desk"
                            ><button
                                class="rung"
                                tabindex="-1"
                                data-column="D"
                                data-own="{{ $row->own->value }}"
                                data-effect="{{ $row->inEffect->value }}"
                                @if ($row->mixed) data-mixed="1" @endif
                                data-back="{{ $givesBack->to($row->key) }}"
                                data-why="{{ $titles->of($row) }}"
                                aria-label="{{ $row->rungLabel() }}"
                            >
                                {!! Marks::rung($row->own, $row->inEffect, $row->mixed) !!}
                            </button></span
                        >
                        @break
                    @case ('output')
                        <span role="gridcell" class="output"
                            ><button
                                class="out @if ($row->pictures->own === null) unset @endif"
                                tabindex="-1"
                                @disabled (!$bench->mayChange())
                                data-column="O"
                                data-own="{{ $row->pictures->own?->word() ?? '' }}"
                                data-effect="{{ $row->pictures->inEffect->value }}"
                                @if ($row->pictures->mixed) data-mixed="1" @endif
                                data-back="{{ $row->pictures->before() }}"
                                data-why="{{ $pictureTitles->of($row) }}"
                                aria-label="{{ $row->pictures->label() }}"
                            >
                                {!! Marks::output($row->pictures->own, $row->pictures->inEffect, $row->pictures->mixed) !!}
                            </button></span
                        >
                        @break
                    @case ('lock')
                        <span role="gridcell" class="lock"
                            ><button
                                class="lock-button @if ($row->lock !== $row->ownLock) held @endif"
                                tabindex="-1"
                                @disabled (!$bench->mayChange())
                                @if ($row->isSetItself()) data-itself="1" @endif
                                title="{{ $row->lockTitle($bench->mayChange()) }}"
                                aria-label="{{ $row->lock->label() }}"
                            >
                                {!! Marks::lock($row->lock) !!}
                            </button></span
                        >
                        @break
                    @default
                        <span
                            role="gridcell"
                            class="cell @if ($column->isNumber) number @endif"
                            title="{{ $row->cells[$column->id] ?? '' }}"
                            ><span class="label">{{ $row->cells[$column->id] ?? '' }}</span></span
                        >
                @endswitch
            @endforeach
            @if ($over !== [])
                @php ($states = $memberships->of($row))
                @foreach ($over as [$key, $name])
                    <span role="gridcell" class="member-cell"
                        ><button
                            class="member is-{{ $states[$key] }}"
                            tabindex="-1"
                            data-state="{{ $states[$key] }}"
                            aria-label="{{ $title }}: {{ $states[$key] }}, {{ $name }}"
                        ></button
                    ></span>
                @endforeach
            @endif
            @if ($columns->isOn()) @include ('workbench.view-cells') @endif
            <span role="gridcell" class="more"
                ><button class="more-button" tabindex="-1" aria-label="More for {{ $title }}" aria-haspopup="menu">
                    {!! Icon::svg('ellipsis') !!}
                </button></span
            >
        </div>
    @endforeach
    @if ($rows === [])
        <p class="empty" role="row">
            <span role="gridcell">
                @if ($words !== '')
                    Nothing here fits “{{ $words }}”.
                @elseif ($ledger->named !== '')
                    No row here has “{{ $ledger->named }}” in its name.
                @else
                    {{ $ledger->emptiness() }}
                @endif
            </span>
        </p>
    @endif
</div>
