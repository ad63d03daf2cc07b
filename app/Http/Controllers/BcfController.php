<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\History;
use App\Changes\ReadBcf;
use App\Files\UnableToKeep;
use App\Workbench\BcfOf;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\UploadedFile;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use VineShelf\Bcf\BcfReader;
use VineShelf\Bcf\BcfWriter;
use VineShelf\Bcf\UnableToWriteBcf;
use VineShelf\Bcf\UnreadableBcf;
use VineShelf\Bcf\Version;

/** Views out as BCF, and in again. */
final class BcfController
{
    private const MOST = 64_000_000;

    /** Remarks that are said at once; how many more there are is said as well. */
    private const REMARKS = 12;

    /** The views that are named, or all of them; "as" is the version. */
    public function write(Request $request, Bench $bench): BinaryFileResponse
    {
        $version = Version::tryFrom($request->string('as', '3.0')->value()) ?? throw new Refused('BCF is written as 2.1 or 3.0.', 'as');
        $keys = $request->string('keys')->value();
        $numbers = $keys === '' ? $bench->shelf()->within(0) : ViewsController::meant($request, $bench);
        $file = (string) tempnam(sys_get_temp_dir(), 'bcf');
        $bcf = new BcfOf($bench, $version);
        $views = array_map(static fn (int $number) => $bench->shelf()->members[$number], $numbers);
        try {
            BcfWriter::write($bcf->topics($views), $version, $bench->project->name, BcfOf::guid($bench->project->key), $file);
        } catch (UnableToWriteBcf $full) {
            @unlink($file);
            throw UnableToKeep::file(basename($file), 0);
        }
        $name = trim((string) preg_replace('~[^\p{L}\p{N} _-]+~u', ' ', $bench->project->name)) ?: 'views';

        return response()
            ->download($file, "$name.bcf", [
                'Content-Type' => 'application/octet-stream',
                'X-Remarks' => rawurlencode(json_encode(self::shortened($bcf->remarks), JSON_THROW_ON_ERROR)),
            ])
            ->deleteFileAfterSend();
    }

    public function read(Request $request, Bench $bench, History $history): JsonResponse
    {
        $file = $request->file('file');
        if (! $file instanceof UploadedFile || ! $file->isValid() || $file->getSize() > self::MOST) {
            throw new Refused('Choose a BCF file of up to '.intdiv(self::MOST, 1_000_000).' MB.', 'file');
        }
        try {
            [$topics, $remarks] = BcfReader::read($file->getPathname());
        } catch (UnreadableBcf $unreadable) {
            throw new Refused($unreadable->getMessage(), 'file');
        }
        $name = mb_substr($file->getClientOriginalName(), 0, 200);
        $command = $history->carryOut($bench, static fn (Bench $held): ReadBcf => new ReadBcf($held, $topics, $name));

        return new JsonResponse(['says' => "{$command->name()}.", 'remarks' => self::shortened([...$remarks, ...$command->remarks])]);
    }

    /**
     * @param  list<string>  $remarks
     * @return list<string>
     */
    private static function shortened(array $remarks): array
    {
        $more = count($remarks) - self::REMARKS;

        return $more > 0 ? [...array_slice($remarks, 0, self::REMARKS), "And $more more of the kind."] : $remarks;
    }
}
