<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Changes\Edits\Edit;
use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use VineShelf\Output\Output;
use VineShelf\Own\OwnValue;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Members;

/** What {@see LightenPictures} set is as it was before, where it still stands. */
final class GiveBackPictures extends Command
{
    private readonly Edits $edits;

    /**
     * @param Settings                                                                       $did what was set
     * @param array{layers?: array<int, mixed>, objects?: array<array-key, string>} $was what was set before
     */
    public function __construct(Bench $bench, Settings $did, array $was)
    {
        $scene = $bench->scene();
        $locked = $bench->inEffect()->locked();
        /** @var list<Edit> $steps */
        $steps = [];
        foreach ($did->layers as $number => $rung) {
            $layer = $bench->layers()->has($number) ? $bench->layers()->get($number) : null;
            [$output, $note] = is_array($was['layers'][$number] ?? null) ? $was['layers'][$number] : [null, ''];
            if ($layer?->output?->value === $rung) {
                $steps[] = new RowEdit(
                    'layers',
                    $number,
                    ['output' => $rung, 'output_note' => $layer->outputNote],
                    ['output' => $output, 'output_note' => $note],
                );
            }
        }
        $groups = [];
        $left = 0;
        foreach ($did->objects as $rung => $numbers) {
            $still = Bits::none($scene->count());
            foreach ($bench->organizers()->own->values(OwnValue::OUTPUT) as $value) {
                if ($value->value === Output::from($rung)->word()) {
                    $still = $scene->rowBits($numbers)->and($scene->valued($value->number));
                }
            }
            $left += $still->and($locked)->count();
            $still = $still->without($locked);
            foreach ($was['objects'] ?? [] as $before => $packed) {
                $those = $still->and($scene->rowBits(Members::unpack((string) base64_decode($packed, true))));
                $groups[(string) $before] = isset($groups[$before]) ? $groups[$before]->or($those) : $those;
                $still = $still->without($those);
            }
            array_push($steps, ...(new Valuing($bench, $still, OwnValue::OUTPUT, null))->steps);
        }
        foreach ($groups as $before => $rows) {
            array_push($steps, ...(new Valuing($bench, $rows, OwnValue::OUTPUT, (string) $before))->steps);
        }
        $this->leftAlone = self::lockedInWords($left);
        $this->edits = new Edits($steps);
    }

    public function name(): string
    {
        return 'Give back what was lightened in pictures';
    }

    public function edits(): Edits
    {
        return $this->edits;
    }
}
