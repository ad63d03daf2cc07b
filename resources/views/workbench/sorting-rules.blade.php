@use ('App\View\Icon')
@php
    $mayChange = $bench->mayChange();
    $n = static fn (int $count): string => number_format($count);
    $run = $dry->run;
    $changes = $run->changed()->count();
@endphp
<div class="weight-head">
    <h2>Sorting rules</h2>
    @if ($dry->lines !== [] && $mayChange)
        <button class="button primary" data-act="POST /sorting-rules/run" @disabled ($dry->running() === 0)>Sort by them</button>
        <label class="tick" title="As soon as a file is taken in, what came in it is sorted by the rules">
            <input
                type="checkbox"
                data-act="POST /sorting-rules/coming"
                data-ticked="on"
                @checked ($bench->project->sorts_what_comes)
            />
            and whatever comes in
        </label>
    @endif
    <span class="gap"></span>
    @if ($mayChange)
        <button class="button" data-open="/sorting-rules/ask">Add a rule</button>
        <button class="button" data-open="/sorting-rules/proposed" title="Rules that explain how the model is filed now">
            Read off…
        </button>
        <button class="button" data-read="/sorting-rules/ask-read" data-accept=".json" title="A list from another project">Open…</button>
    @endif
    @if ($dry->lines !== [])
        <a class="button" href="{{ route('sorting-rules.file', $bench->project) }}" download title="For another project">Save</a>
    @endif
    <button class="icon-button" data-panel="close" title="Close (Esc)" aria-label="Close">{!! Icon::svg('x') !!}</button>
</div>
@if ($dry->lines === [])
    <div class="weight-none screen-empty">
        <p>No rules yet. A sorting rule says which objects go under which layer, which tags they get, or what they are called.</p>
        @if ($mayChange)
            <p>
                <button class="link" data-open="/sorting-rules/ask">Add the first</button>, let them be
                <button class="link" data-open="/sorting-rules/proposed">read off</button> how the model is filed now, or
                <button class="link" data-read="/sorting-rules/ask-read" data-accept=".json">open a list</button> from another project.
            </p>
        @endif
    </div>
@else
    <p class="weight-says screen-says">
        <span
            >Now:
            <button class="link" data-pick="what=changed" @disabled ($changes === 0)
                >{{ $n($changes) }} {{ $changes === 1 ? 'object' : 'objects' }}</button
            >
            would be filed or tagged otherwise</span
        >
        <span
            ><button class="link" data-pick="what=untaken" @disabled ($run->untaken->isEmpty())>{{ $n($run->untaken->count()) }}</button>
            no rule takes</span
        >
        <button
            class="link"
            data-command="forecast"
            title="A column beside the names: where each object would go, what would come to each layer and leave it"
        >
            in the ledger
        </button>
        @if (! $run->left()->isEmpty())
            <span
                >{!! Icon::svg('lock') !!}
                <button class="link" data-pick="what=left">{{ $n($run->left()->count()) }}</button> locked, left alone</span
            >
        @endif
    </p>
    <div class="weight-list screen-list" tabindex="0" role="group" aria-label="Sorting rules, first come first served">
        <table>
            <thead>
                <tr>
                    <th scope="col" class="number">#</th>
                    <th scope="col"><span class="unseen">On</span></th>
                    <th scope="col">Objects that fit</th>
                    <th scope="col">become</th>
                    <th scope="col" class="number" title="Objects that reach the rule and fit it">Takes</th>
                    @if ($picked !== null)
                        <th scope="col" class="number" title="Of the pick and what it holds, how many reach the rule and fit it">Picked</th>
                    @endif
                    <th scope="col" class="number" title="Of these, objects that are filed otherwise now">Moves</th>
                    <th scope="col"><span class="unseen">What is done</span></th>
                </tr>
            </thead>
            <tbody>
                @foreach ($dry->lines as $at => $line)
                    @include ('workbench.sorting-rule')
                @endforeach
            </tbody>
        </table>
    </div>
@endif
