<?php

declare(strict_types=1);

namespace App\Intake;

use App\Jobs\TakeIn;
use App\Models\Import;
use App\Models\Project;
use App\Models\User;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;
use VineShelf\Layers\SortBy;

/** Receives a file and queues its import. */
final class Uploads
{
    /** Moves the file at $path to where the worker finds it. */
    public function receive(User $person, ?Project $project, string $path, string $fileName, SortBy $sortBy, string $property): Import
    {
        $key = Str::lower(Str::random(20));
        $kept = 'uploads/'.$key;
        $disk = Storage::disk('local');
        $disk->makeDirectory('uploads');
        if (! @rename($path, $disk->path($kept)) && ! copy($path, $disk->path($kept))) {
            throw new \RuntimeException('The file could not be kept.');
        }
        $import = Import::query()->create([
            'key' => $key,
            'user_id' => $person->id,
            'project_id' => $project?->id,
            'file_name' => mb_strimwidth(mb_scrub($fileName), 0, 200, '…'),
            'path' => $kept,
            'bytes' => (int) filesize($disk->path($kept)),
            'sort_by' => $sortBy->value,
            'property' => mb_strimwidth($property, 0, 100),
        ]);
        TakeIn::dispatch($import->id);

        return $import;
    }
}
