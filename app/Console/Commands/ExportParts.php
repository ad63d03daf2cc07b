<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Refused;
use App\Exporting\Exporting;
use App\Models\View;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Relatives;

final class ExportParts extends OnBench
{
    protected const WAITS = true;

    protected $signature =
        'shelf:export {project} {file : binary glTF, .glb} {--rule= : what; everything when not given} '.
        '{--view= : as that view shows it} {--output : as pictures show it, instead of the desk} '.
        '{--quantized : smaller numbers} {--compressed : as EXT_meshopt_compression has it} {--person=} {--json}';

    protected $description = 'Export objects as binary glTF, at the rungs of the desk or of pictures';

    public function handle(): int
    {
        $bench = $this->bench();
        $file = (string) $this->argument('file');
        if (! is_dir(dirname($file)) || is_dir($file)) {
            throw new Refused("There is no folder for $file.");
        }
        $name = $this->option('view');
        $view = is_string($name) ? $bench->project->views()->where('name', $name)->first() : null;
        if (is_string($name) && ! ($view instanceof View)) {
            throw new Refused("There is no view $name.");
        }
        $rule = $this->option('rule');
        $rows = is_string($rule) ? $this->picked($bench, $rule) : Bits::all($bench->scene()->count());
        $inEffect = $this->option('output') ? $bench->outputs()->of($view)->inEffect : $bench->asIn($view);
        $exporting = new Exporting($bench, $inEffect->rungs(), (bool) $this->option('quantized'), (bool) $this->option('compressed'));
        $done = self::writing($file, static fn () => $exporting->write(Relatives::within($bench->scene(), $rows), $file));

        return $this->answer($done->says(), [
            'objects' => $done->objects,
            'hidden' => $done->hidden,
            'heldBack' => (object) $done->heldBack,
            'bytes' => $done->bytes,
        ]);
    }
}
