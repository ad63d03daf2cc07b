<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Refused;
use App\Files\Kept;
use App\Models\Project;
use Illuminate\Http\Request;
use VineShelf\Formats\Gltf\Pictures;

/** A small picture that the canvas made. It is kept only once it is known to be one, and when what it is for is carried out. */
final readonly class ViewPicture
{
    private const BYTES = 400_000;

    private function __construct(private Project $project, private string $bytes, private string $ending) {}

    /** @throws Refused when something was sent that is no such picture */
    public static function of(Request $request, Project $project, string $field): ?self
    {
        $given = $request->string('picture')->value();
        if ($given === '') {
            return null;
        }
        [$type, $bytes] =
            preg_match('~^data:(image/(?:png|jpeg));base64,([A-Za-z0-9+/=]+)$~D', $given, $found) === 1
                ? [$found[1], base64_decode($found[2], true)]
                : ['', false];
        if ($bytes === false || strlen($bytes) > self::BYTES || Pictures::type($bytes) !== $type) {
            throw new Refused('The picture is not a PNG or JPEG of up to '.intdiv(self::BYTES, 1000).' kB.', $field);
        }

        return new self($project, $bytes, $type === 'image/png' ? 'png' : 'jpg');
    }

    /** Keeps it, unless it is kept already. @return string its file */
    public function file(): string
    {
        $file = $this->project->folder().'/pictures/'.hash('xxh128', $this->bytes).".$this->ending";
        Kept::put($file, $this->bytes);

        return $file;
    }
}
