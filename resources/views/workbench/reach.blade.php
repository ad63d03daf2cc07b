@use ('VineShelf\Picking\Reach')
@use ('VineShelf\Picking\Scope')
<form method="dialog" class="reach" data-reach>
    <h2 id="dialog-title">Reach from {{ number_format($bench->pick()->count()) }} picked</h2>
    <label>
        In
        <select name="scope">
            @foreach (Scope::cases() as $scope)
                <option value="{{ $scope->value }}">
                    {{
                        $scope === Scope::Project
                            ? 'the whole project'
                            : 'the ' . mb_strtolower($scope->label())
                    }}
                </option>
            @endforeach
        </select>
    </label>
    <div class="ways">
        @foreach (Reach::cases() as $reach)
            <button
                type="button"
                class="button"
                data-way="{{ $reach->value }}"
                title="{{ ucfirst($reach->meaning()) }}"
                @if ($loop->first) autofocus @endif
            >
                {{ $reach->label() }}
            </button>
        @endforeach
    </div>
    <label>
        Sizes may differ by
        <input type="number" name="tolerance" min="0" max="100" step="0.5" value="{{ 100 * VineShelf\Picking\Ways\Asked::TOLERANCE }}" />
        percent
    </label>
    @if ($properties !== [])
        <h3>Same value of one property</h3>
        <div class="ways">
            @foreach ($properties as $name => $objects)
                <button
                    type="button"
                    class="button"
                    data-way="properties"
                    data-property="{{ $name }}"
                    title="{{ number_format($objects) }} of the pick have it"
                >
                    {{ $name }}
                </button>
            @endforeach
        </div>
    @endif
    <p class="reached" role="status"></p>
    <p class="acts"><button class="button" value="close">Done</button></p>
</form>
