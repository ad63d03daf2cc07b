<form class="ask" data-submit="post" data-address="{{ route('views.meant', [$bench->project, $view->no]) }}">
    <h2 id="dialog-title">What pictures of {{ $view->name }} take over</h2>
    @if ($lowered === null)
        <p>It keeps no rungs: its pictures begin with everything at Full.</p>
    @elseif ($lowered->lines === [])
        <p>Nothing is lowered in it: its pictures show all of it in full.</p>
    @else
        <p>Who applies the view gets all of it on the desk; its pictures take over what is meant.</p>
        @include ('workbench.lowered')
    @endif
    <p class="error" role="alert" hidden></p>
    <p class="acts">
        @if ($lowered !== null && $lowered->lines !== [])
            <button class="button primary">Keep it so</button>
        @endif
        <button type="button" class="button" data-close>Close</button>
    </p>
</form>
