<div class="ask wide share-links">
    <h2 id="dialog-title">Share {{ $count === 1 ? 'a view' : number_format($count) . ' views' }} by a link</h2>
    @if ($made !== null)
        <div class="made-link">
            <label for="made-link">The link to {{ $made->name }}</label>
            <input id="made-link" value="{{ route('shown', $made->token) }}" readonly autofocus />
            <button type="button" class="button" data-copy="{{ route('shown', $made->token) }}">Copy</button>
        </div>
    @endif
    @if ($count > 0)
        <form id="share-new" class="share-new" novalidate>
            <input type="hidden" name="keys" value="{{ $keys }}" />
            <label for="share-name">Called</label>
            <input id="share-name" name="name" value="{{ $called }}" maxlength="120" required @if ($made === null) autofocus @endif />
            <label for="share-ends">Ends on</label>
            <input id="share-ends" name="ends" type="date" value="{{ $ends }}" required />
            <label for="share-password">Password</label>
            <input id="share-password" name="password" type="text" autocomplete="off" maxlength="200" placeholder="none" />
            <span class="ticks">
                <label class="tick"
                    ><input type="checkbox" name="as_kept" value="1" /> As the views keep it for the desk, thinned to work as well</label
                >
                <label class="tick"><input type="checkbox" name="may_pick" value="1" /> Objects say their names</label>
                <label class="tick"><input type="checkbox" name="may_comment" value="1" /> Guests may comment</label>
            </span>
            <p class="hint">
                Whoever has the link sees these views, their names and notes, and of the model what one of them shows. Nothing else is sent.
            </p>
            <p class="error" id="share-error" role="alert" hidden></p>
            <p class="acts">
                <button class="button primary">Make a link</button> <button type="button" class="button" data-close>Close</button>
            </p>
        </form>
    @else
        <p>There are no views to share yet.</p>
        <p class="acts"><button type="button" class="button" data-close>Close</button></p>
    @endif
    @if ($links->isNotEmpty())
        <h3>Links of this project</h3>
        <div class="scrolled">
            <table class="reviewed">
                <thead>
                    <tr>
                        <th scope="col">Called</th>
                        <th scope="col">Shows</th>
                        <th scope="col">Ends</th>
                        <th scope="col" class="number">Visits</th>
                        <th scope="col"><span class="unseen">What can be done</span></th>
                    </tr>
                </thead>
                <tbody>
                    @foreach ($links as $link)
                        <tr @class (['gone' => ! $open[$link->id]])>
                            <th scope="row">
                                <span class="label" title="{{ $link->name }}, made by {{ $link->maker->name }}">{{ $link->name }}</span>
                            </th>
                            <td>
                                {{
                                    implode(
                                        ', ',
                                        array_filter([
                                            $link->views === 'all' ? 'all views' : $link->views,
                                            $link->password === '' ? '' : 'password',
                                            $link->as_pictures ? '' : 'as kept for the desk',
                                            $link->may_pick ? 'names' : '',
                                            $link->may_comment && !$open[$link->id] ? 'comments' : '',
                                        ]),
                                    )
                                }}
                                @if ($open[$link->id])
                                    <label class="tick"
                                        ><input
                                            type="checkbox"
                                            data-may-comment="{{ $link->id }}"
                                            @checked ($link->may_comment)
                                        /> comments</label
                                    >
                                @endif
                            </td>
                            <td>{{ $link->revoked_at !== null ? 'revoked' : $link->ends_at->format('j M Y') }}</td>
                            <td class="number" title="{{ $link->visited_at?->diffForHumans() ?? 'never' }}">
                                {{ number_format($link->visits) }}
                            </td>
                            <td>
                                @if ($open[$link->id])
                                    <button type="button" class="link" data-copy="{{ route('shown', $link->token) }}">Copy</button>
                                    <button type="button" class="link" data-revoke="{{ $link->id }}">Revoke</button>
                                @elseif ($link->revoked_at !== null && $link->ends_at->isFuture())
                                    <button type="button" class="link" data-revoke="{{ $link->id }}" data-back="1">Open again</button>
                                @endif
                            </td>
                        </tr>
                    @endforeach
                </tbody>
            </table>
        </div>
    @endif
</div>
