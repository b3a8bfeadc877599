# frozen_string_literal: true

module Roost
  module Core
    class RudeNames
      # What the signs of a name may stand for.
      class Letters
        # What stands for letters besides what Unicode's confusables know. Each reading is tried.
        SIGNS = {
          "0" => %w[o], "1" => %w[i l], "2" => %w[z], "3" => %w[e], "4" => %w[a], "5" => %w[s], "6" => %w[g b],
          "7" => %w[t l], "8" => %w[b], "9" => %w[g q], "!" => %w[i l], "|" => %w[i l], "(" => %w[c], "<" => %w[c],
          "{" => %w[c], "[" => %w[c], "+" => %w[t], "$" => %w[s], "§" => %w[s], "@" => %w[a], "€" => %w[e c], "£" => %w[l e],
          "¢" => %w[c], "¡" => %w[i], "%" => %w[x], "µ" => %w[u], "¥" => %w[y], "^" => %w[a], "&" => %w[a],
          ")" => %w[d], "*" => [], "ß" => %w[ss b], "æ" => %w[ae], "œ" => %w[oe], "ø" => %w[o], "ł" => %w[l], "đ" => %w[d],
          "ð" => %w[d], "þ" => %w[th p], "ı" => %w[i], "ƒ" => %w[f], "и" => %w[n u], "я" => %w[r], "ш" => %w[w],
          "щ" => %w[w], "ц" => %w[u], "л" => %w[n], "п" => %w[n], "в" => %w[b v], "н" => %w[h], "к" => %w[k], "т" => %w[t],
          "м" => %w[m], "у" => %w[y u], "г" => %w[r], "з" => %w[e], "є" => %w[e], "б" => %w[b], "η" => %w[n], "ν" => %w[v],
          "ω" => %w[w], "μ" => %w[u], "κ" => %w[k], "τ" => %w[t], "π" => %w[n], "λ" => %w[a], "ς" => %w[c], "ε" => %w[e],
          "β" => %w[b], "θ" => %w[o], "σ" => %w[o], "χ" => %w[x], "υ" => %w[u], "ɐ" => %w[a], "ɔ" => %w[c], "ǝ" => %w[e],
          "ɘ" => %w[e], "ɟ" => %w[f], "ƃ" => %w[g], "ɥ" => %w[h], "ᴉ" => %w[i], "ɾ" => %w[j], "ʞ" => %w[k], "ɯ" => %w[m],
          "ɹ" => %w[r], "ʇ" => %w[t], "ʌ" => %w[v], "ʍ" => %w[w], "ʎ" => %w[y], "ʊ" => %w[u], "i" => %w[l], "l" => %w[i]
        }.freeze
        SMALL_CAPITALS = "ᴀʙᴄᴅᴇꜰɢʜɪᴊᴋʟᴍɴᴏᴘꞯʀꜱᴛᴜᴠᴡʏᴢ".chars.zip("abcdefghijklmnopqrstuvwyz".chars).to_h.freeze
        # Several that look like one.
        TOGETHER = { "vv" => "w", "\\/\\/" => "w", "|<" => "k", "()" => "o", "[]" => "o", "|-|" => "h", "/\\" => "a",
                     "\\/" => "v", "|)" => "d", "|_|" => "u", "/-\\" => "a" }.freeze
        # Sound alike; for the worst words only.
        SOUNDS = { "ph" => "f", "v" => "u", "k" => "c", "q" => "k", "z" => "s", "y" => "i", "kk" => "ck", "rn" => "m" }.freeze
        # Where an alphabet of letters in circles or squares begins that NFKC leaves alone.
        ALPHABETS = [0x1F150, 0x1F170, 0x1F1E6].freeze
        # Marks over and under letters; in other scripts than these a mark is a vowel.
        MARKS = /[\u0300-\u036f\u1ab0-\u1aff\u1dc0-\u1dff\u20d0-\u20ff\ufe00-\ufe0f\ufe20-\ufe2f]/
        # Stand between the parts of honest names, and so hide a letter of the worst words only.
        SEPARATORS = "-.'’‘ʻʿʼ,·`´"

        # What a sign is read as: the letters, how many signs, and what that costs (see Tree).
        Reading = Struct.new(:letters, :length, :cost)

        # @param looks [#call] takes a character, gives what it looks like (Unicode Technical Standard 39)
        def initialize(looks)
          @looks = looks
          @known = {}
        end

        # @return [String] in small letters, without marks, circles, parentheses around words, and what is not seen
        def plain(name)
          text = name.gsub(/[\u{1F150}-\u{1F169}\u{1F170}-\u{1F189}\u{1F1E6}-\u{1F1FF}]/) { |sign| in_circle(sign) }
          text = text.unicode_normalize(:nfkc).gsub(/[\p{Cf}\u2800\u3164\u115f\u1160]/, "").downcase
          text = text.unicode_normalize(:nfd).gsub(MARKS, "").unicode_normalize(:nfc)
          text.gsub(/\((\p{L}{2,}[^()]*)\)/, '\1')
        end

        # @param text [String] plain
        # @return [Array<Array<Reading>>] what may be read at each sign
        def readings(text)
          text.chars.each_index.map { |at| single(text[at]) + several(text, at) }
        end

        private

        def in_circle(sign)
          first = ALPHABETS.reverse.find { |each| each <= sign.ord }
          ("a".ord + sign.ord - first).chr
        end

        def single(sign)
          @known.clear if @known.length > 2000
          @known[sign] ||= (letters(sign).map { |each| Reading.new(each, 1, 0) } + hidden(sign) + sounds(sign)).freeze
        end

        def letters(sign)
          looks = sign.ascii_only? ? [] : @looks.call(sign).downcase.gsub(MARKS, "").scan(/\A[a-z0-9]{1,3}\z/)
          digits = looks.flat_map { |each| SIGNS.fetch(each, []) }
          own = SIGNS.fetch(sign, []) + [SMALL_CAPITALS[sign]].compact
          ((sign.match?(/[\p{L}\p{M}]/) ? [sign] : []) + own + looks + digits).uniq
        end

        # What looks like a letter is that letter, and hides no other.
        def hidden(sign)
          return [] if sign.match?(/[\p{L}\p{M}\p{N}\s]/) || (SIGNS.key?(sign) && sign != "*")

          [Reading.new(nil, 1, Tree::HIDDEN | (SEPARATORS.include?(sign) ? Tree::SOUND : 0))]
        end

        def sounds(sign) = SOUNDS.key?(sign) ? [Reading.new(SOUNDS[sign], 1, Tree::SOUND)] : []

        def several(text, at)
          found = [[TOGETHER, 0], [SOUNDS, Tree::SOUND]].flat_map do |table, cost|
            table.filter_map do |signs, letters|
              Reading.new(letters, signs.length, cost) if signs.length > 1 && text[at, signs.length] == signs
            end
          end
          found.freeze
        end
      end
    end
  end
end
