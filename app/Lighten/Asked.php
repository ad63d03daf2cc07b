<?php

declare(strict_types=1);

namespace App\Lighten;

use App\Models\Lightening;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Members;

/** What somebody wants lightened, and how. */
final readonly class Asked
{
    public const SIDES = ['desk', 'output'];

    /** What gets a rung: objects, or layers only. */
    public const BY = ['objects', 'layers'];

    public const FROM = ['camera', 'views', 'everywhere'];

    /**
     * @param int                       $triangles that all may have afterwards
     * @param list<array<string, mixed>> $cameras   as views keep them, from the origin of the scene; none for everywhere
     * @param Bits|null                 $keep      object numbers that are left as they are
     * @param bool                      $hides     whether things may be hidden, and not only be boxes
     * @param list<int>                 $views     the views that the cameras are of
     */
    public function __construct(
        public int $triangles,
        public string $side = 'desk',
        public string $by = 'objects',
        public string $from = 'everywhere',
        public array $cameras = [],
        public ?Bits $keep = null,
        public bool $hides = true,
        public array $views = [],
    ) {}

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['keep' => $this->keep === null ? '' : base64_encode(Members::pack($this->keep))] + get_object_vars($this);
    }

    public static function of(Lightening $lightening): self
    {
        $kept = $lightening->wanted;

        /**
         * @var array{
         *     triangles: int, side: string, by: string, from: string, cameras: list<array<string, mixed>>, keep: string, hides: bool,
         *     views?: list<int>
         * } $kept
         */
        return new self(
            $kept['triangles'],
            $kept['side'],
            $kept['by'],
            $kept['from'],
            $kept['cameras'],
            $kept['keep'] === '' ? null : Members::unpack((string) base64_decode($kept['keep'], true)),
            $kept['hides'],
            $kept['views'] ?? [],
        );
    }
}
