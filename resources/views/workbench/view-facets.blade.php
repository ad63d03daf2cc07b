@use ('VineShelf\Views\Facet')
<form class="ask" data-submit="post" data-address="{{ route('views.facets', $bench->project) }}" data-camera>
    <h2 id="dialog-title">What {{ count($views) === 1 ? $views[0]->name.' keeps' : count($views).' views keep' }}</h2>
    <input type="hidden" name="keys" value="{{ $keys }}" />
    <table class="choices-table">
        <thead>
            <tr>
                <th scope="col">Of a view</th>
                <th scope="col">Keep, as it is now</th>
                <th scope="col">Leave alone</th>
                <th scope="col">Unchanged</th>
            </tr>
        </thead>
        <tbody>
            @foreach (Facet::cases() as $facet)
                @php
                    $keeping = count(array_filter($views, fn ($view) => $view->keeps($facet)));
                    $now = $keeping === 0 ? 'left alone' : ($keeping === count($views) ? 'kept' : "kept by $keeping of " . count($views));
                @endphp
                <tr>
                    <th scope="row">
                        {{ $facet->label() }}
                        <em>{{ $now }}</em>
                    </th>
                    @foreach (['1' => 'Keep', '0' => 'Leave alone', '' => 'Unchanged'] as $value => $label)
                        <td>
                            <input
                                type="radio"
                                name="keep_{{ $facet->value }}"
                                value="{{ $value }}"
                                aria-label="{{ $facet->label() }}: {{ $label }}"
                                @checked ($value === '')
                            />
                        </td>
                    @endforeach
                </tr>
            @endforeach
        </tbody>
    </table>
    <p class="hint">What is kept is taken from the desk, and the camera from the canvas.</p>
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button primary">Change</button> <button type="button" class="button" data-close>Cancel</button></p>
</form>
