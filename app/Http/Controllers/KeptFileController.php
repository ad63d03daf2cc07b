<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Project;
use App\Workbench\ViewPicture;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Storage;

/** Files of a project that never change once they are there: packs of meshes, textures, and pictures. */
final class KeptFileController
{
    public function pack(Project $project, int $pack): Response
    {
        $file = $project->packs()->where('no', $pack)->value('file');
        abort_unless(is_string($file), 404);

        return self::kept($file, 'model/gltf-binary');
    }

    public function texture(Project $project, int $texture): Response
    {
        $file = $project->textures()->where('no', $texture)->value('file');
        abort_unless(is_string($file), 404);

        return self::kept(
            $file,
            ['png' => 'image/png', 'jpg' => 'image/jpeg', 'webp' => 'image/webp'][pathinfo($file, PATHINFO_EXTENSION)] ??
                'application/octet-stream',
        );
    }

    public function picture(Project $project, int $view): Response
    {
        $file = $project->views()->where('no', $view)->value('picture');
        abort_unless(is_string($file) && $file !== '', 404);

        return self::kept($file, str_ends_with($file, '.png') ? 'image/png' : 'image/jpeg');
    }

    public function projectPicture(Project $project): Response
    {
        abort_if($project->picture === '', 404);

        return self::kept($project->picture, str_ends_with($project->picture, '.png') ? 'image/png' : 'image/jpeg');
    }

    /** What the canvas showed when the project was opened first stands for it until it has a view. The first to send one is heard. */
    public function keepProjectPicture(Request $request, Project $project): Response
    {
        $picture = ViewPicture::of($request, $project, 'picture');
        if ($picture !== null && $project->wantsPicture()) {
            Project::query()
                ->whereKey($project->id)
                ->where('picture', $project->picture)
                ->update(['picture' => $picture->file()]);
        }

        return response()->noContent();
    }

    /** The web server sends the file itself; where none stands in front, PHP does. */
    private static function kept(string $file, string $type): Response
    {
        $headers = [
            'Content-Type' => $type,
            'Cache-Control' => 'private, max-age=31536000, immutable',
            'X-Content-Type-Options' => 'nosniff',
        ];
        $server = request()->server('SERVER_SOFTWARE');
        if (is_string($server) && str_starts_with($server, 'nginx')) {
            return response('', 200, $headers + ['X-Accel-Redirect' => "/kept/$file"]);
        }
        $bytes = Storage::disk('local')->get($file);
        abort_if($bytes === null, 404);

        return response($bytes, 200, $headers);
    }
}
