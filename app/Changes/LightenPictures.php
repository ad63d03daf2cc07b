<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Changes\Edits\Edit;
use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use VineShelf\Output\Output;
use VineShelf\Own\OwnValue;
use VineShelf\Rungs\OutputSettings;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Members;

/** What pictures show of many objects, or of layers, is lowered at once. What is lower already is left as it is. */
final class LightenPictures extends Command
{
    /** What was set, of what was proposed. */
    public readonly Settings $did;

    /**
     * What was set before, of what was changed.
     *
     * @var array{layers: array<int, array{int|null, string}>, objects: array<array-key, string>}
     */
    public readonly array $was;

    private readonly Edits $edits;

    /** @param Settings $proposed rungs of layers, and of objects by number */
    public function __construct(Bench $bench, Settings $proposed, private readonly int $triangles)
    {
        $scene = $bench->scene();
        $locked = $bench->inEffect()->locked();
        /** @var list<Edit> $steps */
        $steps = [];
        $layers = $objects = $was = [];
        $left = 0;
        foreach ($proposed->layers as $number => $rung) {
            $layer = $bench->layers()->has($number) ? $bench->layers()->get($number) : null;
            if ($layer === null || ($layer->output !== null && ($layer->output->rung() ?? 5) <= $rung)) {
                continue;
            }
            $layers[$number] = $rung;
            $was['layers'][$number] = [$layer->output?->value, $layer->outputNote];
            $steps[] = new RowEdit(
                'layers',
                $number,
                ['output' => $layer->output?->value, 'output_note' => $layer->outputNote],
                ['output' => $rung, 'output_note' => ''],
            );
        }
        foreach ($proposed->objects as $rung => $numbers) {
            $rows = $scene->rowBits($numbers);
            $left += $rows->and($locked)->count();
            $rows = $rows->without($locked);
            foreach ($bench->organizers()->own->values(OwnValue::OUTPUT) as $value) {
                $those = $scene->valued($value->number)->and($rows);
                $output = OutputSettings::read($value->value);
                if (($output->rung() ?? 5) <= $rung && $output !== Output::AsOnDesk) {
                    $rows = $rows->without($those);
                } elseif (! $those->isEmpty()) {
                    $known = isset($was['objects'][$value->value])
                        ? Members::unpack((string) base64_decode($was['objects'][$value->value], true))
                        : Bits::none(0);
                    $was['objects'][$value->value] = base64_encode(Members::pack($known->with($scene->numberBits($those))));
                }
            }
            array_push($steps, ...(new Valuing($bench, $rows, OwnValue::OUTPUT, Output::from($rung)->word()))->steps);
            $objects[$rung] = $scene->numberBits($rows);
        }
        $this->leftAlone = self::lockedInWords($left);
        $this->did = new Settings($layers, $objects);
        $this->was = ['layers' => $was['layers'] ?? [], 'objects' => $was['objects'] ?? []];
        $this->edits = new Edits($steps);
    }

    public function name(): string
    {
        return 'Lighten pictures to '.number_format($this->triangles).' triangles';
    }

    public function edits(): Edits
    {
        return $this->edits;
    }
}
