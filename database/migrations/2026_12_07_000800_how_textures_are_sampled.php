<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** How textures are wrapped and filtered, as their file says it: exports say it again. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('textures', static function (Blueprint $table): void {
            $table->json('sampler')->default('{}');
        });
    }

    public function down(): void
    {
        Schema::table('textures', static function (Blueprint $table): void {
            $table->dropColumn('sampler');
        });
    }
};
