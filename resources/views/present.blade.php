@use ('App\View\Icon')
<x-page title="{{ $title }}" class="presenting" script="present">
    <main
        id="present"
        data-address="{{ $address }}"
        data-shared="{{ $shared }}"
        data-back="{{ $back }}"
        data-budget="{{ $budget }}"
        data-smoothing="{{ config('shelf.smoothing') }}"
        data-resolution="{{ config('shelf.resolution') }}"
        data-steps="{{ $presentation->count() }}"
        data-revision="{{ $revision }}"
        data-may-pick="{{ $link?->may_pick ? 1 : 0 }}"
    >
        <section class="canvas" id="canvas" aria-label="Model">
            <canvas tabindex="0" aria-label="The model: right button turns it, the wheel zooms. Arrow keys go from view to view"></canvas>
            @if ($link?->may_comment)
                <span class="comment-mark" id="say-mark" aria-hidden="true" hidden></span>
            @endif
        </section>
        <p class="present-busy" id="present-busy" role="status"></p>
        <p class="present-picked" id="present-picked" role="status" hidden></p>
        <aside class="present-caption" id="present-caption" aria-live="polite">
            <h1 id="present-name"></h1>
            <p id="present-note"></p>
        </aside>
        @if ($link?->may_comment)
            <form class="present-say" id="present-say" novalidate hidden>
                <label for="say-by">Your name</label>
                <input id="say-by" name="by" maxlength="60" autocomplete="name" />
                <label for="say-words">What should be said</label>
                <textarea id="say-words" name="words" rows="4" maxlength="1000"></textarea>
                <p class="hint" id="say-where">For the view as a whole. A click in the model says where.</p>
                <p class="error" id="say-error" role="alert" hidden></p>
                <p class="acts">
                    <button class="button primary">Send</button> <button type="button" class="button" id="say-close">Close</button>
                </p>
            </form>
        @endif
        <nav class="present-bar" aria-label="Views">
            <button class="icon-button" id="present-before" title="The view before (←)" aria-label="The view before"
                >{!! Icon::svg('chevron-left') !!}</button
            >
            <label class="present-which">
                <span class="unseen">View</span>
                <select id="present-which">
                    @foreach ($presentation->views as $step => $view)
                        <option value="{{ $step }}">{{ $step + 1 }} / {{ $presentation->count() }} · {{ $view->name }}</option>
                    @endforeach
                </select>
            </label>
            <button class="icon-button" id="present-next" title="The next view (→)" aria-label="The next view"
                >{!! Icon::svg('chevron-right') !!}</button
            >
            <button
                class="icon-button"
                id="present-again"
                title="Back to where the view looks from (0)"
                aria-label="Back to where the view looks from"
                >{!! Icon::svg('rotate-ccw') !!}</button
            >
            <button class="icon-button" id="present-full" title="Full screen (F)" aria-label="Full screen" aria-pressed="false"
                >{!! Icon::svg('maximize') !!}</button
            >
            @if ($link?->may_comment)
                <button
                    class="icon-button"
                    id="present-comment"
                    title="Say something of this view"
                    aria-label="Say something of this view"
                    aria-expanded="false"
                    aria-controls="present-say"
                    >{!! Icon::svg('sticky-note') !!}</button
                >
            @endif
            @if ($other)
                <a
                    class="present-other"
                    href="{{ $other }}"
                    title="Show what {{ $asPictures ? 'the views keep for the desk, thinned to work as well' : 'pictures of them show' }}"
                    >{{ $asPictures ? 'As pictures' : 'As kept' }}</a
                >
            @endif
            @if ($back)
                <a class="icon-button" href="{{ $back }}" title="Back to the workbench (Esc)" aria-label="Back to the workbench"
                    >{!! Icon::svg('x') !!}</a
                >
            @endif
        </nav>
    </main>
    <script type="application/json" id="materials">
        @json($materials)
    </script>
</x-page>
