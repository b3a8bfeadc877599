# frozen_string_literal: true

module Roost
  module Operations
    # Saves one slide from the builder. Reads and writes that slide only, so that it costs
    # the same in a long lesson. Where somebody saved a newer version of this slide meanwhile,
    # both changes stand if they are in different fields, and nothing is saved if they are not: so
    # nobody's work is overwritten.
    class EditSlide
      NEWER = "%s changed the same meanwhile. Your text is still here: copy what you need, then reload."
      GONE = "This slide is no longer in the lesson. Undo, or reload the page."

      # head:: Store::Lessons::Head after the save; slide:: Core::Slide as it is now
      Saved = Struct.new(:head, :slide, keyword_init: true)

      # @param rev [Integer] the slide's rev that the editor was looking at
      # @yieldparam slide [Core::Slide]
      # @yieldreturn [Core::Reading] of the changed slide
      # @return [Core::Reading, nil] of Saved; nil when there is no such lesson
      def call(account_id, lesson_id, slide_id, rev:)
        lessons = Store::Lessons.new
        lessons.transaction do
          head = lessons.head(account_id, lesson_id, lock: true)
          next nil if head.nil? || head.deleted

          slide = lessons.slide(lesson_id, slide_id)
          next Core::Reading.refused(GONE) unless slide

          base = slide.rev == rev ? slide : (rev && Store::Revisions.new.slide_at(lesson_id, slide_id, rev))
          next newer(account_id, lesson_id, slide_id, rev) unless base

          yield(base).and_then do |mine|
            # Who has changed nothing goes on with what she sees.
            next Core::Reading.ok(Saved.new(head: head, slide: base).freeze) if mine == base

            both = base.equal?(slide) ? mine : merged(base, mine, slide)
            both ? Core::Reading.ok(save(account_id, head, slide, both)) : newer(account_id, lesson_id, slide_id, rev)
          end
        end
      end

      private

      def save(account_id, head, before, after)
        kept = after.with(rev: before.rev + 1)
        Saved.new(head: Store::Lessons.new.save_slide(account_id, head, kept, field: field(before, kept)), slide: kept).freeze
      end

      # @return [Core::Slide, nil] the present slide with what the editor changed; nil where both changed the same
      def merged(base, mine, theirs)
        changes = Core::DocumentChanges.between(base.to_document, mine.to_document)
        document = Core::DocumentChanges.merged(changes, base.to_document, theirs.to_document)
        document && Core::Slide.from_document(document)
      end

      def newer(account_id, lesson_id, slide_id, rev)
        Core::Reading.refused(format(NEWER, author(account_id, lesson_id, slide_id, rev)))
      end

      # The one field that changed, or nil.
      def field(before, after)
        paths = Core::DocumentChanges.between(before.to_document, after.to_document).keys
        paths.one? ? [after.id, *paths.first].join("/") : nil
      end

      # A colleague who has changed the slide since; her own window only where nobody else has.
      def author(account_id, lesson_id, slide_id, rev)
        revisions = Store::Revisions.new
        colleague = revisions.colleague_since(lesson_id, slide_id, rev, account_id)
        return colleague if colleague

        revisions.last_change(lesson_id, slide_id)&.account_id == account_id ? "Another window of yours" : "Somebody"
      end
    end
  end
end
