<?php

declare(strict_types=1);

namespace Tests\Feature\Support;

use App\Models\Import;
use App\Models\Project;
use App\Models\User;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;
use Illuminate\Support\Facades\Schema;
use Illuminate\Support\Facades\Storage;

/**
 * A project as it was right after its file was taken in: its rows and its files, to be put back for the next test and for
 * another person. That takes a fraction of the time that taking the file in does; tests of taking in do that themselves.
 */
final class Snapshot
{
    /** Tables whose rows belong to a project, in the order in which they may be written. */
    private const TABLES = [
        ...['projects', 'sources', 'imports', 'project_people', 'layers', 'materials', 'textures', 'packs', 'meshes', 'objects'],
        ...['folders', 'tags', 'sets', 'own_values', 'changes'],
    ];

    /**
     * @param array<string, list<string>> $rows    by table, as COPY writes them
     * @param array<string, int|false>    $persons at which field of a table's rows the person stands
     */
    private function __construct(
        private readonly int $project,
        private readonly string $key,
        private readonly int $person,
        private readonly array $rows,
        private readonly array $persons,
        private readonly string $folder,
    ) {}

    public static function of(Project $project, User $person): self
    {
        $folder = sys_get_temp_dir().'/shelf-snapshot-'.bin2hex(random_bytes(6));
        File::copyDirectory(Storage::disk('local')->path('originals'), "$folder/originals");
        File::copyDirectory(Storage::disk('local')->path("projects/$project->key"), "$folder/projects/$project->key");
        foreach (Import::query()->where('project_id', $project->id)->pluck('key') as $import) {
            File::copyDirectory(Storage::disk('local')->path("sources/$import"), "$folder/sources/$import");
        }
        register_shutdown_function(static fn () => exec('rm -rf '.escapeshellarg($folder)));
        $rows = $persons = [];
        foreach (self::TABLES as $table) {
            $of = $table === 'projects' ? 'id' : 'project_id';
            $rows[$table] =
                DB::connection()
                    ->getPdo()
                    ->pgsqlCopyToArray("(SELECT * FROM $table WHERE $of = $project->id)") ?:
                [];
            $persons[$table] = array_search('user_id', Schema::getColumnListing($table), true);
        }

        return new self($project->id, $project->key, $person->id, $rows, $persons, $folder);
    }

    /** Null where the project that it was taken of still stands. */
    public function putBack(User $person): ?Project
    {
        if (Project::query()->whereKey($this->project)->exists()) {
            return null;
        }
        foreach (array_filter($this->rows) as $table => $rows) {
            $at = $this->persons[$table];
            $written = [];
            foreach ($rows as $row) {
                $fields = explode("\t", rtrim($row, "\n"));
                if ($at !== false && $fields[$at] === (string) $this->person) {
                    $fields[$at] = (string) $person->id;
                }
                $written[] = implode("\t", $fields);
            }
            DB::connection()->getPdo()->pgsqlCopyFromArray($table, $written);
        }
        File::copyDirectory("$this->folder/projects/$this->key", Storage::disk('local')->path("projects/$this->key"));
        File::copyDirectory("$this->folder/sources", Storage::disk('local')->path('sources'));
        File::copyDirectory("$this->folder/originals", Storage::disk('local')->path('originals'));

        return Project::query()->findOrFail($this->project);
    }
}
