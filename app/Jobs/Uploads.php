<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Bench\Refused;
use App\Files\Kept;
use App\Files\UnableToKeep;
use App\Intake\Room;
use App\Models\Import;
use App\Models\Project;
use App\Models\User;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;

/** Receives a file and queues its import. */
final class Uploads
{
    /**
     * Moves the file at $path to where the worker finds it. When that is refused, the file is let go: nobody else knows of it.
     *
     * @param int $landing number of the layer that what is unfiled lands in, 0 for that of the person
     *
     * @throws Refused      when there is no room for it
     * @throws UnableToKeep
     */
    public function receive(User $person, ?Project $project, string $path, string $fileName, Sorted $sorted, int $landing = 0): Import
    {
        $bytes = (int) @filesize($path);
        $key = Str::lower(Str::random(20));
        $kept = 'uploads/'.$key;
        try {
            Room::check($person, $bytes);
            self::move($path, $kept, $bytes);
        } catch (Refused | UnableToKeep $full) {
            @unlink($path);
            throw $full;
        }
        try {
            // The row and its job come together or not at all.
            return DB::transaction(static function () use (
                $key,
                $kept,
                $bytes,
                $person,
                $project,
                $fileName,
                $sorted,
                $landing,
            ): Import {
                $import = Import::query()->create([
                    'key' => $key,
                    'user_id' => $person->id,
                    'project_id' => $project?->id,
                    'file_name' => mb_strimwidth(str_replace("\0", '', mb_scrub($fileName)), 0, 200, '…'),
                    'path' => $kept,
                    'bytes' => $bytes,
                    'landing' => $landing,
                    'sort_by' => $sorted->by->value,
                    'property' => mb_strimwidth($sorted->property, 0, 100),
                    'tags_from' => mb_strimwidth(trim($sorted->tagsFrom), 0, 100),
                    'separator' => mb_strimwidth($sorted->separator, 0, 10),
                ]);
                TakeIn::dispatch($import->id);

                return $import;
            });
        } catch (\Throwable $error) {
            Kept::disk()->delete($kept);
            throw $error;
        }
    }

    /** @throws UnableToKeep */
    private static function move(string $path, string $kept, int $bytes): void
    {
        $disk = Kept::disk();
        $disk->makeDirectory('uploads');
        if (@rename($path, $disk->path($kept))) {
            return;
        }
        if (! @copy($path, $disk->path($kept)) || filesize($disk->path($kept)) !== $bytes) {
            $disk->delete($kept);
            throw UnableToKeep::file($kept, $bytes);
        }
    }
}
