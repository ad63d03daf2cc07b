@use ('App\View\Icon')
<x-page title="Pictures · {{ $project->name }}" class="pictures-page" script="pictures">
    <main
        id="pictures"
        data-workbench="{{ route('workbench', $project) }}"
        data-together="{{ $together }}"
        data-budget="{{ $budget }}"
        data-smoothing="{{ config('shelf.smoothing') }}"
        data-resolution="{{ config('shelf.resolution') }}"
    >
        <form class="pictures-form" id="pictures-form" novalidate>
            <p class="crumb"><a href="{{ route('workbench', $project) }}">{{ $project->name }}</a></p>
            <h1>Pictures of views</h1>
            <div class="pictures-views" role="group" aria-labelledby="pictures-which">
                <p id="pictures-which" class="legend-like">Views</p>
                <label class="pictures-all tick"
                    ><input type="checkbox" id="pictures-all" checked /> <span id="pictures-count" class="number"></span
                ></label>
                <ul id="pictures-list">
                    @foreach ($views as $view)
                        <li>
                            <input
                                type="checkbox"
                                name="views"
                                value="{{ $view->no }}"
                                data-name="{{ $view->name }}"
                                aria-label="Make a picture of {{ $view->name }}"
                                checked
                            />
                            <button type="button" class="pictures-look" data-view="{{ $view->no }}" title="{{ $view->name }}">{{
                                $view->name
                            }}</button>
                            @if ($view->camera === null)
                                <span class="hint" title="It keeps no camera: the picture is taken from where the canvas looks now"
                                    >from here</span
                                >
                            @endif
                        </li>
                    @endforeach
                </ul>
            </div>
            <div class="pictures-size">
                <label for="pictures-longer">Longer side</label>
                <span class="with-unit"
                    ><input
                        id="pictures-longer"
                        type="number"
                        inputmode="numeric"
                        min="64"
                        max="4096"
                        step="1"
                        value="1920"
                        list="pictures-usual"
                        required
                    /> px</span
                >
                <datalist id="pictures-usual">
                    @foreach ([1280, 1920, 2560, 3840, 4096] as $usual)
                        <option value="{{ $usual }}"></option>
                    @endforeach
                </datalist>
                <span class="hint number" id="pictures-shape"></span>
            </div>
            <fieldset class="pictures-of">
                <legend>Shows</legend>
                <label class="tick"><input type="radio" name="of" value="output" checked /> The output: what pictures show</label>
                <label class="tick"><input type="radio" name="of" value="desk" /> The desk: what is at work</label>
            </fieldset>
            <details class="pictures-leaves" id="pictures-leaves" hidden>
                <summary></summary>
                <ul></ul>
            </details>
            <label class="tick"><input type="checkbox" id="pictures-clear" /> Nothing behind the model (transparent)</label>
            <p class="error" id="pictures-error" role="alert" hidden></p>
            <p class="acts">
                <button class="button primary" id="pictures-make">Make pictures</button>
                <button type="button" class="button" id="pictures-end" hidden>Stop</button>
                <a class="button" href="{{ route('workbench', $project) }}">Back to the workbench</a>
            </p>
            <div class="pictures-busy" id="pictures-busy" hidden>
                <div
                    class="bar"
                    id="pictures-progress"
                    role="progressbar"
                    aria-label="Pictures made"
                    aria-valuemin="0"
                    aria-valuemax="100"
                    ><i></i
                ></div>
                <p id="pictures-step"></p>
            </div>
            <p class="pictures-done" id="pictures-done" role="status"></p>
        </form>
        <section class="canvas" id="canvas" aria-label="The view">
            <canvas tabindex="0" aria-label="The model: right button turns it, the wheel zooms"></canvas>
            <svg id="view-frame" class="view-frame" aria-hidden="true"></svg>
            <div class="pictures-made" id="pictures-made" hidden></div>
        </section>
    </main>
    <script type="application/json" id="materials">
        @json($materials)
    </script>
</x-page>
