<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** How many pixels the pictures of materials have; 0 for those that were taken in before. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('textures', function (Blueprint $table): void {
            $table->integer('width')->default(0);
            $table->integer('height')->default(0);
        });
    }

    public function down(): void
    {
        Schema::table('textures', function (Blueprint $table): void {
            $table->dropColumn(['width', 'height']);
        });
    }
};
