@use ('App\View\Icon')
@use ('App\View\Marks')
<x-page title="Projects" class="plain">
    <header class="top">
        <span class="brand"><x-logo /> <span>Vine Shelf</span></span>
        <span class="gap"></span>
        <x-person-menu />
    </header>
    <main class="column">
        <h1>Projects</h1>
        @if (session('message'))
            <p class="said" role="status">{{ session('message') }}</p>
        @endif
        <form class="drop" id="upload" action="{{ route('imports.store') }}" data-upload>
            <div class="drop-words">
                {!! Icon::svg('upload') !!}
                <p>
                    <strong>Drop a model here</strong>, or <label class="link" for="file">choose a file</label><br />
                    <small>.glb, .gltf, its folder or its files together, or a .zip of them</small>
                </p>
                <input id="file" name="file" type="file" accept=".glb,.gltf,.zip,.bin,.png,.jpg,.jpeg,.webp" class="unseen" multiple />
            </div>
            <div class="drop-sort">
                <label for="sort_by">Make layers from</label>
                <select id="sort_by" name="sort_by">
                    @foreach (VineShelf\Layers\SortBy::cases() as $by)
                        <option value="{{ $by->value }}">{{ $by->label() }}</option>
                    @endforeach
                </select>
                <span data-shown-for="property" hidden
                    ><label for="property">Property</label> <input id="property" name="property" value="layer" maxlength="100"
                /></span>
                <label for="tags_from">Make tags from</label>
                <input id="tags_from" name="tags_from" placeholder="no property" maxlength="100" />
                <span
                    ><label for="separator">Values apart by</label> <input id="separator" name="separator" value=";" maxlength="10" size="2"
                /></span>
            </div>
            <div class="progress" hidden>
                <div class="bar"><i></i></div>
                <p role="status"></p>
                <button type="button" class="button" data-upload-stop>Stop</button>
            </div>
            <p class="error" role="alert" hidden></p>
        </form>
        @if ($imports->isNotEmpty())
            <section aria-label="On their way">
                @foreach ($imports as $import)
                    @include ('partials.import', ['import' => $import])
                @endforeach
            </section>
        @endif
        <ul class="projects">
            @forelse ($projects as $project)
                <li>
                    <a href="{{ route('workbench', $project) }}" class="project">
                        <span class="project-picture">
                            @if (isset($pictures[$project->id]))
                                <img src="{{ $pictures[$project->id] }}" alt="" />
                            @else
                                <x-logo />
                            @endif
                        </span>
                        <span class="project-name" title="{{ $project->name }}">{{ $project->name }}</span>
                    </a>
                    @php ($source = $project->sources->first())
                    <p>{{ number_format($project->sources->sum(fn($source) => $source->report['objects'] ?? 0)) }} objects · {{
                        Marks::short(
                            (int) $project->sources->sum(fn($source) => $source->report['triangles'] ?? 0),
                        )
                    }} triangles</p>
                    <p class="project-acts">
                        @if ($source)
                            <a href="{{ route('projects.report', [$project, $source]) }}">Take-in report</a>
                        @endif
                        @if ($project->pivot->role === 'owner')
                            <button class="link" popovertarget="project-{{ $project->key }}">Rename or delete</button>
                        @endif
                    </p>
                    @if ($project->pivot->role === 'owner')
                        <div class="menu project-menu" id="project-{{ $project->key }}" popover>
                            <form method="post" action="{{ route('projects.update', $project) }}">
                                @csrf
                                @method ('patch')
                                <label for="name-{{ $project->key }}">Name</label>
                                <input id="name-{{ $project->key }}" name="name" value="{{ $project->name }}" maxlength="120" required />
                                <button class="button">Rename</button>
                            </form>
                            <form method="post" action="{{ route('projects.destroy', $project) }}">
                                @csrf
                                @method ('delete')
                                <p>Deleting takes the project with its layers, views and packs. It cannot be undone.</p>
                                <button class="button danger">Delete {{ Str::limit($project->name, 40) }}</button>
                            </form>
                        </div>
                    @endif
                </li>
            @empty
                <li class="empty">No project yet. Drop a model above and it becomes one.</li>
            @endforelse
        </ul>
        @error ('name')
            <p class="error" role="alert">{{ $message }}</p>
        @enderror
    </main>
</x-page>
