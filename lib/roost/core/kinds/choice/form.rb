# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Choice
        # What a teacher says of it in the builder.
        class Form < Kinds::Form
          MOST_OPTIONS = 12
          OPTION_LIMIT = 200
          # What is asked often, by the name of its button. How far one agrees is an opinion and has
          # no right answer.
          PRESETS = { "yes_no" => [%w[Yes No], {}], "true_false" => [%w[True False], {}],
                      "agree" => [Prompt::AGREE, { "poll" => true }] }.freeze
          private_constant :PRESETS

          of_prompt :with_settings, :sure?, :settings

          # @param form [Hash] "option_ids" and "option_texts" side by side, "option_alts"
          #   by id, "keys", "several", "partial", "shuffle", "lettered", "sure", and "do" => "add",
          #   "remove:ID", "unpicture:ID", "earlier:ID", "yes_no", "true_false" or "agree"
          def edited(form)
            read_common(form).and_then do |common|
              read_options(form).map do |options|
                changed = arranged(options, form["do"].to_s)
                ids = changed["options"].map { |option| option["id"] }
                keys = Array(form["keys"]).map(&:to_s) & ids
                several = form["several"] == "1"
                with_settings(common.merge(changed).merge("keys" => keys, "several" => several,
                                                          "partial" => several && form["partial"] == "1",
                                                          "shuffle" => form["shuffle"] == "1",
                                                          "lettered" => form["lettered"] == "1",
                                                          "sure" => form.fetch("sure", sure? ? "1" : "0") == "1"))
              end
            end
          end

          # The same question with a picture on one option.
          # @return [Reading]
          def picturing(option_id, picture)
            known = settings["options"].any? { |option| option["id"] == option_id }
            return Reading.refused("That option is gone. Reload the page.") unless known

            Reading.ok(with_settings("lettered" => false, "options" => settings["options"].map do |option|
              option["id"] == option_id ? option.merge("picture" => picture.to_document) : option
            end))
          end

          private

          def read_options(form)
            return Reading.ok(settings["options"]) unless form["option_ids"]

            ids = Array(form["option_ids"]).map(&:to_s)
            known = settings["options"].to_h { |option| [option["id"], option] }
            return Reading.refused("These options have changed meanwhile. Reload the page.") unless (ids - known.keys).empty?

            texts = Array(form["option_texts"])
            alts = form["option_alts"].is_a?(Hash) ? form["option_alts"] : {}
            readings = ids.each_with_index.map { |id, place| read_option(known[id], texts[place], alts[id]) }
            readings.find { |reading| !reading.ok? } || Reading.ok(readings.map(&:value))
          end

          def read_option(option, text, alt)
            Text.read(text, limit: OPTION_LIMIT, what: "An option", lines: false).and_then do |words|
              picture = option["picture"]
              next Reading.ok(option.merge("text" => words)) unless picture && alt

              Text.read(alt, limit: Picture::ALT_LIMIT, what: "A picture's description", lines: false)
                  .map { |said| option.merge("text" => words, "picture" => picture.merge("alt" => said)) }
            end
          end

          def arranged(options, action)
            made = settings["made"]
            verb, id = action.split(":", 2)
            texts, more = PRESETS[verb]
            return { "options" => Prompt.options(texts), "made" => texts.length, **more } if texts

            place = options.index { |option| option["id"] == id }
            if verb == "add" && options.length < MOST_OPTIONS
              made += 1
              options += [{ "id" => "o#{made}", "text" => "" }]
            elsif place
              options = rearranged(options, place, verb)
            end
            { "options" => options, "made" => made }
          end

          def rearranged(options, place, verb)
            options = options.dup
            case verb
            when "remove" then options.delete_at(place) if options.length > 2
            when "earlier" then options.insert([place - 1, 0].max, options.delete_at(place))
            when "unpicture" then options[place] = options[place].except("picture")
            end
            options
          end
        end
      end
    end
  end
end
