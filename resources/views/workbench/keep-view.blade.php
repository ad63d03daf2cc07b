<form class="ask" data-submit="post" data-address="{{ route('views.store', $bench->project) }}" data-picture data-camera>
    <h2 id="dialog-title">Keep this view</h2>
    <label for="view-name">Name</label>
    <input id="view-name" name="name" value="{{ $name }}" maxlength="120" autofocus />
    <fieldset>
        <legend>It keeps</legend>
        <label class="tick"><input type="checkbox" name="keep_camera" value="1" checked /> the camera</label>
        <label class="tick"
            ><input type="checkbox" name="keep_rungs" value="1" checked /> the rungs: what is shown, ghosted, boxed or hidden</label
        >
    </fieldset>
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button primary">Keep</button> <button type="button" class="button" data-close>Cancel</button></p>
</form>
