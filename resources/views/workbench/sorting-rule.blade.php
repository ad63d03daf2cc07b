@use ('App\SortingRules\Paths')
@use ('App\View\Icon')
@php
    $took = $run->took[$at];
    $trouble = $dry->troubles[$at] ?? '';
    $fights = array_filter($run->fights, static fn ($fight): bool => $fight->winner === $at);
    $layer = $line->layer === 0 ? '' : (Paths::layer($bench, $line->layer) ?? $line->layerPath);
    $tagged = array_sum(array_map(static fn ($rows): int => $rows->count(), $took->tagged));
    $saysMore = $trouble !== '' || isset($dry->remarks[$at]) || $took->from !== [] || $tagged > 0 || $fights !== []
        || ! $took->left->isEmpty();
@endphp
<tr @class (['is-off' => $line->isOff, 'has-trouble' => $trouble !== '']) data-line="{{ $line->number }}">
    <td class="number">{{ $at + 1 }}</td>
    <td>
        <input
            type="checkbox"
            aria-label="Rule {{ $at + 1 }} is on"
            data-act="POST /sorting-rules/{{ $line->number }}/{{ $line->isOff ? 'on' : 'off' }}"
            @checked (! $line->isOff)
            @disabled (! $mayChange)
        />
    </td>
    <td class="sorting-rule">
        <code title="{{ $line->rule }}">{{ $line->rule }}</code>
        @if ($line->only) <span class="aside" title="Not what picked groups hold">these alone</span> @endif
        @if ($line->note !== '')
            <span class="aside" title="{{ $line->note }}">{!! Icon::svg('sticky-note') !!}</span>
        @endif
    </td>
    <td class="sorting-does">
        @if ($layer !== '')
            <span class="sorting-part" title="Go under {{ $layer }}"
                >{!! Icon::svg('layers') !!}<span>{{ $layer }}</span></span
            >
            @if ($line->layer < 0) <span class="aside" title="It is made once the rule files something there">new</span> @endif
        @endif
        @foreach ($line->tags as [$tag, $path])
            <span class="sorting-part" title="Get the tag {{ Paths::tag($bench, $tag) ?? $path }}"
                >{!! Icon::svg('tag') !!}<span>{{ Paths::tag($bench, $tag) ?? $path }}</span></span
            >
            @if ($tag < 0) <span class="aside" title="It is made once something gets it">new</span> @endif
        @endforeach
        @if ($line->pattern !== '')
            <span class="sorting-part" title="Are called {{ $line->pattern }}"
                >{!! Icon::svg('pencil') !!}<span>{{ $line->pattern }}</span></span
            >
        @endif
        @if ($layer === '' && $line->tags === [] && $line->pattern === '')
            <span class="aside">stay as they are</span>
        @endif
        @if ($line->goesOn) <span class="aside" title="Rules below may take them as well">and go on</span> @endif
    </td>
    <td class="number">
        <button
            class="link"
            data-pick="what=taken&line={{ $line->number }}"
            title="{{ $n($dry->matched[$at]?->count() ?? 0) }} fit; pick those that it takes"
            @disabled ($took->rows->isEmpty())
            >{{ $n($took->rows->count()) }}</button
        >
    </td>
    @if ($picked !== null)
        <td class="number">{{ $n($took->rows->and($picked)->count()) }}</td>
    @endif
    <td class="number">
        <button
            class="link"
            data-pick="what=filed&line={{ $line->number }}"
            @disabled ($took->filed->isEmpty())
            >{{ $n($took->filed->count()) }}</button
        >
    </td>
    <td class="sorting-acts">
        @if ($mayChange)
            <button
                class="icon-button"
                data-open="/sorting-rules/ask?line={{ $line->number }}"
                title="Change (Enter)"
                aria-label="Change rule {{ $at + 1 }}"
            >{!! Icon::svg('pencil') !!}</button>
            <button
                class="icon-button"
                data-act="POST /sorting-rules/{{ $line->number }}/up"
                title="Up (Alt+↑)"
                aria-label="Move rule {{ $at + 1 }} up"
                @disabled ($loop->first)
            >{!! Icon::svg('arrow-up') !!}</button>
            <button
                class="icon-button"
                data-act="POST /sorting-rules/{{ $line->number }}/down"
                title="Down (Alt+↓)"
                aria-label="Move rule {{ $at + 1 }} down"
                @disabled ($loop->last)
            >{!! Icon::svg('arrow-down') !!}</button>
            <button
                class="icon-button"
                data-menu="line"
                data-of="{{ $line->number }}"
                title="More"
                aria-haspopup="menu"
                aria-label="More for rule {{ $at + 1 }}"
            >{!! Icon::svg('ellipsis') !!}</button>
        @endif
    </td>
</tr>
@if ($saysMore)
    <tr class="sorting-more">
        <td></td>
        <td></td>
        <td colspan="{{ $picked === null ? 5 : 6 }}">
            @if ($trouble !== '')
                <span class="warns">{!! Icon::svg('triangle-alert') !!} {{ $trouble }} The rule takes nothing.</span>
            @elseif (isset($dry->remarks[$at]))
                <span class="warns">{!! Icon::svg('triangle-alert') !!} {{ $dry->remarks[$at] }}</span>
            @endif
            @if ($took->from !== [])
                <span
                    >from
                    @foreach ($took->from as $home => $many)
                        @if ($loop->index === 6 && count($took->from) > 7)
                            and {{ count($took->from) - 6 }} other layers
                            @break
                        @endif
                        <button
                            class="link"
                            data-pick="what=filed&line={{ $line->number }}&layer={{ $home }}"
                            title="Pick these {{ $n($many) }}"
                            >{{ $dry->layerPath($home) }}&nbsp;{{ $n($many) }}</button
                        >{{ $loop->last ? '' : ',' }}
                    @endforeach</span
                >
            @endif
            @if ($tagged > 0)
                <span
                    ><button class="link" data-pick="what=tagged&line={{ $line->number }}">{{ $n($tagged) }}</button> get a
                    tag</span
                >
            @endif
            @if (! $took->left->isEmpty())
                <span
                    ><button class="link" data-pick="what=locked&line={{ $line->number }}">
                        {{ $n($took->left->count()) }}
                    </button>
                    locked</span
                >
            @endif
            @if ($fights !== [])
                <span
                    >comes before
                    @foreach ($fights as $fight)
                        @if ($loop->index === 6 && count($fights) > 7)
                            and {{ count($fights) - 6 }} others
                            @break
                        @endif
                        <button
                            class="link"
                            data-pick="what=fight&line={{ $line->number }}&other={{ $dry->lines[$fight->other]->number }}"
                            title="Pick those that fit both"
                            >rule&nbsp;{{ $fight->other + 1 }}&nbsp;for&nbsp;{{ $n($fight->rows->count()) }}</button
                        >{{ $loop->last ? '' : ',' }}
                    @endforeach</span
                >
            @endif
        </td>
    </tr>
@endif
