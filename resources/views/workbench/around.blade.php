<form class="ask" data-submit="post" data-address="{{ route('cameras.around', $bench->project) }}">
    <h2 id="dialog-title">A turn around the pick</h2>
    <input type="hidden" name="camera" value="" />
    <label for="around-name">Name</label>
    <input id="around-name" name="name" value="Around the pick" maxlength="110" autofocus />
    <label for="around-count">Views</label>
    <input id="around-count" name="count" type="number" min="2" max="{{ $most }}" value="8" />
    <p class="hint">From where the camera looks now, at the same height, evenly around; each a view of a camera and nothing else.</p>
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button primary">Keep them</button> <button type="button" class="button" data-close>Cancel</button></p>
</form>
